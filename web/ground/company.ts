import { useSessionQuery } from './api/api';
import { useMemo } from 'react';
import { displayCents, displayExact } from '../../core/money/display';
import { readAmount } from '../kit/typed/readAmount';

/** Reading and writing of money in the company's currency. Only on pages below `WithCompany`. */
export function useCurrency() {
  const { data } = useSessionQuery();
  if (!data?.company) throw new Error('No amount is read or shown before the company and its currency are named');
  const { digits, currency: code } = data.company;
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
