import { useSessionQuery } from './api/api';
import { useMemo } from 'react';
import { displayCents, displayExact } from '../../core/money/display';
import { readAmount } from '../kit/typed/tidyAmount';

/** Reading and writing of money in the company's currency. */
export function useCurrency() {
  const { data } = useSessionQuery();
  const digits = data?.company?.digits ?? 2;
  const code = data?.company?.currency ?? '';
  return useMemo(
    () => ({
      code,
      digits,
      /** For reading; zero is a dash. */
      show: (cents: number) => displayCents(cents, digits),
      /** For reading; zero in figures. */
      exact: (cents: number) => displayExact(cents, digits),
      /** What a person typed or pasted, thousands separators and all; null where it is not a valid amount. */
      read: (text: string) => readAmount(text, digits),
    }),
    [code, digits],
  );
}
