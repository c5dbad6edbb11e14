import type { Life } from '../life/life';
import type { DaySheet } from './daySheet';

/** What became of a day sheet: written, its hours changed or approved by the office, or signed by the client. */
export const DAY_STATES = ['written', 'taken over', 'signed'] as const;
export type DayState = (typeof DAY_STATES)[number];

/** `untouched`: the office has left its hours in the week sheet as they were put there, and approved none. */
export function dayState(day: Pick<DaySheet, 'signatures'>, untouched: boolean): DayState {
  if (day.signatures.length > 0) return 'signed';
  return untouched ? 'written' : 'taken over';
}

/** What depends on its state: in each it is written on and signed, but what a client signed stays as it was (`brokenSignatures`). */
export const DAY_LIFE = {
  delete: {
    from: ['written'],
    to: null,
    only: 'only one that no client signed, and of which the office has changed or approved no hours, can be deleted',
  },
} as const satisfies Life<DayState, string>;
