import { useSearchParams } from 'react-router';
import type { LedgerParams } from '../../../wire/costs';

/** Filters as they stand in the address, by the names the server knows them. */
export const FILTERS = {
  q: 'search',
  job: 'job',
  section: 'section',
  code: 'costCode',
  type: 'costType',
  party: 'party',
  from: 'from',
  to: 'to',
  posting: 'posting',
  order: 'commitment',
  sort: 'sort',
  down: 'descending',
} as const;

/** What of the ledger an address asks for, as of a day; the server checks it. */
export function askedOf(params: URLSearchParams, asOf: string): LedgerParams {
  const asked: Record<string, string> & { asOf: string } = { asOf };
  for (const [name, key] of Object.entries(FILTERS)) {
    const value = params.get(name);
    if (value !== null && (value !== '' || key === 'section')) asked[key] = value;
  }
  return asked as LedgerParams;
}

export function useSetParam() {
  const [, setParams] = useSearchParams();
  return (changes: Record<string, string>) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(changes)) {
          if (value) next.set(name, value);
          else next.delete(name);
        }
        return next;
      },
      { replace: true },
    );
}
