import { useSessionQuery } from './api/api';
import { useCallback } from 'react';
import { useSearchParams } from 'react-router';
import { addMonths, isPeriod, lastDay, periodOf, type Period } from '../../core/calendar/plainDate';

const PARAM = 'as-of';

interface AsOf {
  month: Period;
  lastDay: string;
  /** The day a document of this month is dated at first: today within the month, else its last day. */
  entryDay: string;
  setMonth: (month: Period) => void;
  move: (months: number) => void;
}

/** The month that rules every figure on the page: it stands in the address, so that it can be sent along. */
export function useAsOf(): AsOf {
  const [params, setParams] = useSearchParams();
  const { data: session } = useSessionQuery();
  const asked = params.get(PARAM);
  const month = asked && isPeriod(asked) ? asked : (session?.newestMonth ?? session?.today.slice(0, 7) ?? '2031-01');
  const setMonth = useCallback(
    (next: Period) =>
      setParams(
        (before) => {
          const after = new URLSearchParams(before);
          after.set(PARAM, next);
          return after;
        },
        { replace: true },
      ),
    [setParams],
  );
  const move = useCallback((months: number) => setMonth(addMonths(month, months)), [month, setMonth]);
  const today = session?.today;
  const entryDay = today && periodOf(today) === month ? today : lastDay(month);
  return { month, lastDay: lastDay(month), entryDay, setMonth, move };
}

/** An address within the product that keeps the month. */
export function useKeepMonth(): (to: string) => string {
  const [params] = useSearchParams();
  const asked = params.get(PARAM);
  return useCallback(
    (to: string) => {
      if (!asked) return to;
      const [path = '', query] = to.split('?');
      const next = new URLSearchParams(query);
      next.set(PARAM, asked);
      return `${path}?${next}`;
    },
    [asked],
  );
}
