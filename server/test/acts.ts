import fc from 'fast-check';
import { CHARGE_MARKS, type ChargeMark } from '../../core/charging/chargeMark';
import { SHOWN_AS, type ShownAs } from '../../core/charging/dayworkInvoice';
import type { JobStatus } from '../../core/jobs/jobStatus';

/** Moves that a running job is refused. */
const MOSTLY_NOTHING = ['tender', 'awarded', 'lost', 'withdrawn', 'cancelled', 'awarded', 'tender', 'lost'] as const;

/** What is done about charged cost. */
export type DayworkAct =
  | { kind: 'mark'; later: number; picks: number[]; mark: ChargeMark; ahead: number | null; markup: number | null }
  | { kind: 'invoice'; later: number; picks: number[]; only: boolean; back: number; shown: ShownAs }
  | { kind: 'credit'; later: number; pick: number; share: number | null };

/** Something a person may do next, sensible or not; `later` days after what was done before, or before it. */
export type Act =
  | { kind: 'post'; later: number; amount: number; hours: number | null; code: string; order: boolean; stored: boolean }
  | { kind: 'reverse'; later: number; pick: number }
  | { kind: 'correct'; later: number; pick: number; to: { section: string; code: string } | null; own: boolean }
  | { kind: 'install'; later: number; pick: number; amount: number | null }
  | { kind: 'undo'; later: number; pick: number }
  | { kind: 'start' | 'submit' | 'take back' | 'discard' | 'uncertify'; later: number }
  | { kind: 'save'; later: number; shares: number[]; materials: number }
  | { kind: 'certify'; later: number; cut: number | null }
  | { kind: 'receive'; later: number; pick: number; share: number }
  | { kind: 'release'; later: number; share: number }
  | { kind: 'change'; later: number; price: number; cost: number; line: string }
  | { kind: 'issue' | 'approve' | 'reject' | 'withdraw'; later: number; pick: number; agreed: number | null }
  | { kind: 'transfer'; later: number; amount: number; slip: number }
  | { kind: 'schedule'; later: number; cuts: number[]; due: ('day' | 'start' | 'finish')[]; slip: number }
  | { kind: 'start by schedule' | 'begin stage' | 'finish stage'; later: number }
  | { kind: 'work'; later: number; employee: string; hours: number; code: string; correct: boolean }
  | DayworkAct
  | { kind: 'close'; later: number; back: number; why: string }
  | { kind: 'lock'; later: number; locked: boolean }
  | { kind: 'move job'; later: number; to: JobStatus };

const later = fc.integer({ min: -12, max: 16 });
const entries = fc.array(fc.nat(20), { minLength: 1, maxLength: 4 });
const DAYWORK_ACTS = [
  fc.record({
    kind: fc.constant('mark' as const),
    later,
    picks: entries,
    mark: fc.constantFrom(...CHARGE_MARKS),
    ahead: fc.option(fc.integer({ min: -10, max: 20 })),
    markup: fc.option(fc.integer({ min: 0, max: 500_000 })),
  }),
  // Drawn more often than the others: without an invoice there is nothing to credit.
  {
    arbitrary: fc.record({
      kind: fc.constant('invoice' as const),
      later,
      picks: entries,
      only: fc.boolean(),
      back: fc.constantFrom(0, 0, 7, -1),
      shown: fc.constantFrom(...SHOWN_AS),
    }),
    weight: 4,
  },
  {
    arbitrary: fc.record({
      kind: fc.constant('credit' as const),
      later,
      pick: fc.nat(4),
      share: fc.option(fc.integer({ min: 1, max: 120 })),
    }),
    weight: 2,
  },
];
export const act: fc.Arbitrary<Act> = fc.oneof(
  fc.record({
    kind: fc.constant('post' as const),
    later,
    amount: fc.integer({ min: -90_000, max: 250_000 }),
    hours: fc.option(fc.nat(400_000)),
    code: fc.constantFrom('100', '200', '900'),
    order: fc.boolean(),
    stored: fc.boolean(),
  }),
  fc.record({ kind: fc.constant('reverse' as const), later, pick: fc.nat(20) }),
  fc.record({
    kind: fc.constant('correct' as const),
    later,
    pick: fc.nat(20),
    to: fc.option(fc.record({ section: fc.constantFrom('A', 'B'), code: fc.constantFrom('200', '900') })),
    own: fc.boolean(),
  }),
  fc.record({ kind: fc.constant('install' as const), later, pick: fc.nat(20), amount: fc.option(fc.nat(90_000)) }),
  fc.record({ kind: fc.constant('undo' as const), later, pick: fc.nat(5) }),
  fc.record({
    kind: fc.constantFrom('start' as const, 'submit' as const, 'take back' as const, 'discard' as const, 'uncertify' as const),
    later,
  }),
  fc.record({
    kind: fc.constant('save' as const),
    later,
    shares: fc.array(fc.nat(110), { minLength: 3, maxLength: 3 }),
    materials: fc.nat(50_000),
  }),
  fc.record({ kind: fc.constant('certify' as const), later, cut: fc.option(fc.nat(100)) }),
  fc.record({ kind: fc.constant('receive' as const), later, pick: fc.nat(6), share: fc.integer({ min: 1, max: 120 }) }),
  fc.record({ kind: fc.constant('release' as const), later, share: fc.integer({ min: 1, max: 120 }) }),
  fc.record({
    kind: fc.constant('change' as const),
    later,
    price: fc.integer({ min: -60_000, max: 200_000 }),
    cost: fc.integer({ min: -30_000, max: 90_000 }),
    line: fc.constantFrom('1', '2', '7', '8'),
  }),
  fc.record({
    kind: fc.constantFrom('issue' as const, 'approve' as const, 'reject' as const, 'withdraw' as const),
    later,
    pick: fc.nat(5),
    agreed: fc.option(fc.integer({ min: -60_000, max: 200_000 })),
  }),
  fc.record({
    kind: fc.constant('transfer' as const),
    later,
    amount: fc.integer({ min: -50_000, max: 50_000 }),
    slip: fc.constantFrom(0, 0, 1),
  }),
  fc.record({
    kind: fc.constant('schedule' as const),
    later,
    cuts: fc.array(fc.nat(1_000_000), { maxLength: 4 }),
    due: fc.array(fc.constantFrom('day' as const, 'start' as const, 'finish' as const), { minLength: 5, maxLength: 5 }),
    slip: fc.constantFrom(0, 0, 1),
  }),
  fc.record({ kind: fc.constantFrom('start by schedule' as const, 'begin stage' as const, 'finish stage' as const), later }),
  fc.record({
    kind: fc.constant('work' as const),
    later,
    employee: fc.constantFrom('E1', 'E2'),
    hours: fc.integer({ min: 1, max: 60 }).map((it) => it * 2500),
    code: fc.constantFrom('100', '200'),
    correct: fc.boolean(),
  }),
  ...DAYWORK_ACTS,
  fc.record({
    kind: fc.constant('close' as const),
    later,
    back: fc.integer({ min: -5, max: 60 }),
    why: fc.constantFrom('', 'tried'),
  }),
  // Unlocked as often as locked, and moved on seldom: a closed job takes hardly anything more.
  fc.record({ kind: fc.constant('lock' as const), later, locked: fc.constantFrom(true, false, false) }),
  fc.record({
    kind: fc.constant('move job' as const),
    later,
    to: fc.constantFrom(...MOSTLY_NOTHING, 'closing-out' as const, 'closed' as const),
  }),
);
