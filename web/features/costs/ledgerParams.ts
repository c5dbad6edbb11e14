import { useSearchParams } from 'react-router';

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
