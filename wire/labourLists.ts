import * as v from 'valibot';
import type { PayClass } from '../core/labour/payClass';
import { PAY_CLASSES } from '../core/labour/payClass';
import { WEEKDAYS } from '../core/labour/overtime';
import type { BurdenOfLine } from '../core/labour/burdens';
import type { LabourList, ListChange } from '../core/labour/lists';
import type { LookedAt, Rung } from '../core/labour/payRates';
import { filled, list, optionalDate, plainDate, quantity, rate, seen, text, unitCost } from './fields';
import { command, preview, query } from './call';

const id = v.nullable(
  v.pipe(
    v.number('expected the id of a row'),
    v.safeInteger('expected the id of a row'),
    v.minValue(1, 'expected the id of a row'),
  ),
);
const code = text(40);
const flag = v.boolean('expected true or false');
const threshold = v.nullable(
  v.pipe(quantity, v.minValue(0, 'expected 0 hours or more'), v.maxValue(1_680_000, 'expected at most 168 hours')),
);
const pay = v.picklist(PAY_CLASSES, `expected one of ${PAY_CLASSES.join(', ')}`);

/** What a row of each list has. */
const ROWS = {
  employees: {
    employee: filled(40),
    name: filled(200),
    wageClass: code,
    startsOn: optionalDate,
    endsOn: optionalDate,
    payrollNumber: code,
    department: v.optional(code, ''),
    /** The newest rate of the employee alone; null for none. Another one is a rate of its own from a day on; left out, it stays. */
    costsAnHour: v.optional(v.nullable(unitCost)),
  },
  'wage-classes': { wageClass: filled(40), description: text(200) },
  'work-kinds': { workKind: filled(40), description: filled(200) },
  'pay-rates': {
    from: plainDate,
    job: code,
    section: text(80),
    workKind: code,
    wageClass: code,
    employee: code,
    rate: unitCost,
    atLeast: flag,
  },
  'piece-rates': { from: plainDate, costCode: filled(40), workKind: code, rate: unitCost, unit: code, topsUp: flag },
  burdens: {
    burden: filled(40),
    description: text(200),
    from: plainDate,
    to: optionalDate,
    job: code,
    wageClass: code,
    percent: rate,
    perHour: unitCost,
    onPremium: flag,
  },
  'overtime-rules': {
    from: plainDate,
    dailyAfter: threshold,
    doubleAfter: threshold,
    weeklyAfter: threshold,
    weekStarts: v.picklist(WEEKDAYS, `expected one of ${WEEKDAYS.join(', ')}`),
  },
  'pay-codes': { payCode: filled(40), pay, job: code, workKind: code },
  /** What the client pays an hour; of a job, of a client or of neither, and of one kind of work, employee or wage class. */
  'charge-rates': { from: plainDate, job: code, customer: code, workKind: code, employee: code, wageClass: code, rate: unitCost },
} as const satisfies Record<LabourList, Record<string, v.GenericSchema>>;

const MOST_ROWS = 20_000;
const inputOf = <const Name extends LabourList>(name: Name) =>
  v.strictObject({
    list: v.literal(name),
    seen,
    /** Of employees: the day from which a changed rate an hour counts; a first one counts from their first day. */
    ratesFrom: v.optional(optionalDate, null),
    rows: list(v.strictObject({ id, ...ROWS[name] }), MOST_ROWS, 'rows'),
  });

/** A whole list as it is to be: a row left out is removed. */
export const labourListInput = v.variant(
  'list',
  [
    inputOf('employees'),
    inputOf('wage-classes'),
    inputOf('work-kinds'),
    inputOf('pay-rates'),
    inputOf('piece-rates'),
    inputOf('burdens'),
    inputOf('overtime-rules'),
    inputOf('pay-codes'),
    inputOf('charge-rates'),
  ],
  'expected one of the lists of labour',
);
export type LabourListInput = v.InferOutput<typeof labourListInput>;
export type LabourListRow = LabourListInput['rows'][number];

/** Somebody whose hours are to be entered, and what an hour costs; null: by the wage class, or not known yet. */
export const newEmployee = v.strictObject({ employee: filled(40), name: filled(200), costsAnHour: v.nullable(unitCost) });
export type NewEmployee = v.InferOutput<typeof newEmployee>;

/** What an hour of somebody costs, and why. Rates in ten-thousandths of a major unit, amounts in minor units. */
export interface RateFinding {
  /** Null where no rung has a rate. */
  rate: number | null;
  rung: Rung | null;
  looked: LookedAt[];
  wageClass: string;
  /** By pay class, of one hour. */
  costs: { pay: PayClass; payAmount: number; burden: number; burdens: BurdenOfLine[] }[];
}

const rateQuery = v.strictObject({
  employee: filled(40),
  job: code,
  section: text(80),
  workKind: code,
  wageClass: code,
  on: plainDate,
});

const who = 'set-up';
export const labourListCalls = {
  labourList: query<{ seen: string; rows: LabourListRow[] }>(who)('/labour/lists/:list'),
  /** The lists that have rows. */
  usedLabourLists: query<LabourList[]>(who)('/labour/lists'),
  /** What saving would change; wrong cells are refused as saving would. */
  previewLabourList: preview<{ changes: ListChange[] }>(who)('/labour/lists/preview', { input: labourListInput }),
  saveLabourList: command<{ changes: number }>(who)('/labour/lists', { method: 'PUT', input: labourListInput }),
  addEmployee: command(who)('/labour/employees', { input: newEmployee }),
  findRate: query<RateFinding>(who)('/labour/rate', { query: rateQuery }),
};
