import { useSessionQuery } from './api/api';
import { useCallback } from 'react';
import { useSearchParams } from 'react-router';
import { firstEntryDay } from '../../core/calendar/firstEntryDay';
import { firstOpenDay } from '../../core/ledger/openDay';
import { addMonths, isEnteredDate, isPeriod, lastDay as lastDayOf, periodOf, type Period } from '../../core/calendar/plainDate';

const PARAM = 'as-of';

interface AsOf {
  /** What every figure is as of, as the server is asked: a month, meaning its last day, or any day. */
  asOf: string;
  /** The month of it, which typed days are taken to be in. */
  month: Period;
  /** The day itself. */
  lastDay: string;
  /** The day a document is dated at first: today or the last day of what is looked at, whichever is earlier, and open. */
  entryDay: string;
  /** To the end of a month, or to any day. */
  set: (next: string) => void;
  /** So many months on, to a month's end; back from within a month to the end of the one before. */
  move: (months: number) => void;
}

/** The day that rules every figure on the page: it stands in the address, so that it can be sent along. */
export function useAsOf(): AsOf {
  const [params, setParams] = useSearchParams();
  const { data: session } = useSessionQuery();
  const asked = params.get(PARAM) ?? '';
  const day = isEnteredDate(asked) && asked !== lastDayOf(periodOf(asked)) ? asked : null;
  const asOfMonth = isEnteredDate(asked) ? periodOf(asked) : isPeriod(asked) ? asked : null;
  const month = asOfMonth ?? session?.newestMonth ?? session?.today.slice(0, 7) ?? '2031-01';
  const set = useCallback(
    (next: string) =>
      setParams(
        (before) => {
          const after = new URLSearchParams(before);
          after.set(PARAM, isEnteredDate(next) && next === lastDayOf(periodOf(next)) ? periodOf(next) : next);
          return after;
        },
        { replace: true },
      ),
    [setParams],
  );
  const within = day !== null;
  const move = useCallback(
    (months: number) => set(addMonths(month, within && months > 0 ? months - 1 : months)),
    [month, within, set],
  );
  const lastDay = day ?? lastDayOf(month);
  const entryDay = session ? firstOpenDay(firstEntryDay(session.today, lastDay, session.newestMonth), session.closedTo) : lastDay;
  return { asOf: day ?? month, month, lastDay, entryDay, set, move };
}

/** An address within the product that keeps the day it is as of. */
export function useWithMonth(): (to: string) => string {
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
