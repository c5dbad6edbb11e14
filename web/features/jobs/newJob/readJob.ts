import { PRICINGS } from '../../../../core/charging/pricing';
import type { Values } from '../../../kit/form/codecSchema';
import { noteRepeated, readCells, readRows } from '../../../kit/grid/rowCodecs';
import { among, amount, day, oneOf, optional, percent, quantity, whole, words, type Faults } from '../../../kit/typed/codecs';
import { REVENUE_METHODS } from '../../../../core/progress/workInProgress';
import { COST_TYPES } from '../../../../core/costs/costType';
import type { ListFact } from '../../../../core/jobs/listFacts';
import type { JobInput } from '../../../../wire/jobs';
import type { GridRow } from '../../../kit/grid/gridTypes';

/** A new job as typed. */
export interface JobForm {
  facts: Record<string, string>;
  sov: GridRow[];
  budget: GridRow[];
  /** Team and checklist, where they were copied from another job. */
  people?: JobInput['people'];
  checklist?: JobInput['checklist'];
}

export interface ReadContext {
  digits: number;
  month: string;
  clients: ReadonlySet<string>;
  /** What a job may be of, by the list. */
  listed: Record<ListFact, ReadonlySet<string>>;
  costCodes: ReadonlySet<string>;
}

export interface ReadJob {
  /** Faults by `facts.x`, `sov.row.column`, `budget.row.column`. */
  faults: Faults;
  contractSum: number | null;
  sovTotal: number;
  budgetTotal: number;
  /** Whole where nothing is wrong. */
  input: JobInput | null;
}

const STATUSES = ['awarded', 'on-site', 'tender'] as const;
const STEPS = ['all', 'further'] as const;

/** How what is typed of a new job is read: its facts, its schedule of values, its budget. */
export function jobCodecs({ digits, month, costCodes, listed }: ReadContext) {
  const [date, rate, measured] = [optional(day(month), null), optional(percent, null), optional(quantity, null)];
  return {
    facts: {
      number: words('Expected a job number'),
      name: words('Expected a name'),
      client: words('Expected a client'),
      status: optional(oneOf(STATUSES), 'awarded'),
      contractSum: optional(amount(digits), null),
      contractReference: words(),
      manager: words(),
      site: words(),
      awardedOn: date,
      startsOn: date,
      finishesOn: date,
      retention: optional(percent, 0),
      materials: rate,
      stepAt: rate,
      stepTo: rate,
      cap: rate,
      stepApplies: optional(oneOf(STEPS), 'all'),
      tax: optional(percent, 0),
      terms: optional(whole('days'), null),
      revenueMethod: optional(oneOf(REVENUE_METHODS), 'cost-to-cost'),
      pricing: optional(oneOf(PRICINGS), 'fixed'),
      ceiling: optional(amount(digits), null),
      kind: optional(among(listed.kind, 'kind of job', '; choose another'), ''),
      department: optional(among(listed.department, 'department', '; choose another'), ''),
      workKind: optional(among(listed.workKind, 'kind of work', '; choose another'), ''),
      payCode: words(),
    },
    sov: {
      line: words('Expected a line number'),
      section: words(),
      description: words('Expected a description'),
      value: amount(digits),
      quantity: measured,
      unit: words(),
      retention: rate,
    },
    budget: {
      section: words(),
      code: among(costCodes, 'cost code', '; add it below, or choose another'),
      type: oneOf(COST_TYPES),
      sovLine: words(),
      description: words(),
      quantity: measured,
      unit: words(),
      hours: measured,
      amount: amount(digits),
    },
  };
}
export type JobCodecs = ReturnType<typeof jobCodecs>;

/** Reads the whole form, and says of every cell that is wrong what is wrong with it. Empty rows are passed over. */
export function readJob(form: JobForm, codecs: JobCodecs, context: ReadContext): ReadJob {
  const faults: Faults = new Map();
  const facts = readCells(codecs.facts, form.facts, faults, 'facts.');
  factFaults(facts, context).forEach(([name, message]) => faults.set(`facts.${name}`, message));
  const sov = readRows(codecs.sov, form.sov, faults, { under: 'sov.' });
  noteRepeated(sov, 'line', (line) => `Line ${line} is already in the schedule; each SOV line has a number of its own`);
  const lines = new Set(sov.map((it) => it.value.line));
  const budget = readRows(codecs.budget, form.budget, faults, { under: 'budget.' });
  for (const { value: it, fault } of budget)
    if (it.sovLine !== '' && !lines.has(it.sovLine)) fault('sovLine', `There is no SOV line ${it.sovLine} above`);
  const input = inputOf(
    facts,
    sov.map((it) => it.value),
    budget.map((it) => it.value),
    form,
  );
  const sovTotal = input.sov.reduce((sum, it) => sum + it.scheduledValue, 0);
  return {
    faults,
    contractSum: facts.contractSum,
    sovTotal,
    budgetTotal: input.budget.reduce((sum, it) => sum + it.amount, 0),
    input: faults.size === 0 && input.contractSum === sovTotal ? input : null,
  };
}

type Read<Part extends keyof JobCodecs> = Values<JobCodecs[Part]>;

/** What the facts of a job have to say together. */
function factFaults(facts: Read<'facts'>, { clients }: ReadContext): (readonly [keyof JobCodecs['facts'], string])[] {
  const { client, status, awardedOn, stepAt, stepTo } = facts;
  const faults: (readonly [keyof JobCodecs['facts'], string])[] = [];
  if (client !== '' && !clients.has(client)) faults.push(['client', `There is no client ${client}; add the client beside it`]);
  if (status !== 'tender' && awardedOn === null)
    faults.push(['awardedOn', `A job that is ${status} needs the day it was awarded`]);
  if ((stepAt === null) !== (stepTo === null))
    faults.push([stepAt === null ? 'stepAt' : 'stepTo', 'A step needs both its percentages, or neither']);
  return faults;
}

function inputOf(
  facts: Read<'facts'>,
  sov: readonly Read<'sov'>[],
  budget: readonly Read<'budget'>[],
  { people = [], checklist = [] }: JobForm,
): JobInput {
  const { contractSum, retention: rate, materials: materialsRate, stepAt, stepTo, stepApplies, cap, tax, terms, ...own } = facts;
  return {
    ...own,
    contractSum: contractSum ?? sov.reduce((sum, it) => sum + it.value, 0),
    retention: { rate, materialsRate, stepAt, stepTo, stepApplies, cap },
    taxRate: tax,
    termsDays: terms,
    sov: sov.map(({ value, retention, ...line }) => ({ ...line, scheduledValue: value, retentionRate: retention })),
    budget: budget.map(({ code, type, ...line }) => ({ ...line, costCode: code, costType: type })),
    people,
    checklist,
    draftId: null,
  };
}
