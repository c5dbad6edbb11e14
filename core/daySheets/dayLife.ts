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

/** The life of a day sheet. What a client signed in it stays as it was (see `brokenSignatures`); the rest is written on. */
export const DAY_LIFE = {
  write: { from: DAY_STATES, to: 'same', only: 'it can be written on' },
  sign: { from: DAY_STATES, to: 'signed', only: 'it can be signed' },
  delete: {
    from: ['written'],
    to: null,
    only: 'only one that no client signed, and of which the office has changed or approved no hours, can be deleted',
  },
} as const satisfies Life<DayState, string>;
