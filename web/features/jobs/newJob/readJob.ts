import { isFilled } from '../../../kit/grid/filledRow';
import { amount, day, optional, percent, quantity, readAt, whole } from '../../../kit/typed/codecs';
import { COST_TYPES, type CostType } from '../../../../core/costs/costType';
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
  costCodes: ReadonlySet<string>;
}

export interface ReadJob {
  /** Faults by `facts.x`, `sov.row.column`, `budget.row.column`. */
  faults: Map<string, string>;
  contractSum: number | null;
  sovTotal: number;
  budgetTotal: number;
  /** Whole where nothing is wrong. */
  input: JobInput | null;
  unknownCodes: string[];
}

const text = (value: string | undefined) => (value ?? '').trim();

/** Reads the whole form, and says of every cell that is wrong what is wrong with it. Empty rows are passed over. */
export function readJob(form: JobForm, context: ReadContext): ReadJob {
  const faults = new Map<string, string>();
  const read = new Reader(faults, context);
  const { facts } = form;
  const fact = (key: string) => text(facts[key]);
  for (const [key, what] of [
    ['number', 'a job number'],
    ['name', 'a name'],
    ['client', 'a client'],
  ] as const)
    if (fact(key) === '') faults.set(`facts.${key}`, `Expected ${what}`);
  if (fact('client') !== '' && !context.clients.has(fact('client')))
    faults.set('facts.client', `There is no client ${fact('client')}; add the client beside it`);
  const status = (fact('status') || 'awarded') as JobInput['status'];
  const contractSum = fact('contractSum') === '' ? null : read.amount('facts.contractSum', fact('contractSum'));
  const sov = form.sov.flatMap((row, i) => (isFilled(row) ? [read.sovLine(row, i)] : []));
  duplicates(form.sov, faults);
  const lines = new Set(sov.map((line) => line.line));
  const budget = form.budget.flatMap((row, i) => (isFilled(row) ? [read.budgetLine(row, i, lines)] : []));
  const sovTotal = sov.reduce((sum, line) => sum + line.scheduledValue, 0);
  const awardedOn = read.date('facts.awardedOn', fact('awardedOn'));
  if (status !== 'tender' && fact('awardedOn') === '')
    faults.set('facts.awardedOn', `A job that is ${status} needs the day it was awarded`);
  const [stepAt, stepTo] = [read.percent('facts.stepAt', fact('stepAt')), read.percent('facts.stepTo', fact('stepTo'))];
  if ((stepAt === null) !== (stepTo === null))
    faults.set(stepAt === null ? 'facts.stepAt' : 'facts.stepTo', 'A step needs both its percentages, or neither');
  const input: JobInput = {
    number: fact('number'),
    name: fact('name'),
    client: fact('client'),
    contractReference: fact('contractReference'),
    status,
    awardedOn,
    startsOn: read.date('facts.startsOn', fact('startsOn')),
    finishesOn: read.date('facts.finishesOn', fact('finishesOn')),
    manager: fact('manager'),
    site: fact('site'),
    revenueMethod: (fact('revenueMethod') || 'cost-to-cost') as JobInput['revenueMethod'],
    contractSum: contractSum ?? sovTotal,
    retention: {
      rate: read.percent('facts.retention', fact('retention')) ?? 0,
      materialsRate: read.percent('facts.materials', fact('materials')),
      stepAt,
      stepTo,
      stepApplies: (fact('stepApplies') || 'all') as 'all',
      cap: read.percent('facts.cap', fact('cap')),
    },
    taxRate: read.percent('facts.tax', fact('tax')) ?? 0,
    termsDays: read.days('facts.terms', fact('terms')),
    sov,
    budget,
    people: form.people ?? [],
    checklist: form.checklist ?? [],
    draftId: null,
  };
  const unknownCodes = [
    ...new Set(budget.map((line) => line.costCode).filter((code) => code !== '' && !context.costCodes.has(code))),
  ];
  return {
    faults,
    contractSum,
    sovTotal,
    budgetTotal: budget.reduce((sum, line) => sum + line.amount, 0),
    unknownCodes,
    input: faults.size === 0 && input.contractSum === sovTotal ? input : null,
  };
}

function duplicates(rows: readonly GridRow[], faults: Map<string, string>): void {
  const seen = new Set<string>();
  rows.forEach((row, i) => {
    const line = text(row.line);
    if (line === '') return;
    if (seen.has(line))
      faults.set(`sov.${i}.line`, `Line ${line} is already in the schedule; each SOV line has a number of its own`);
    seen.add(line);
  });
}

/** Reads cells, and notes what is wrong with them. What cannot be read counts as nothing. */
class Reader {
  constructor(
    private readonly faults: Map<string, string>,
    private readonly context: ReadContext,
  ) {}

  amount(at: string, typed: string): number {
    return readAt(this.faults, at, typed, amount(this.context.digits), 0);
  }

  percent(at: string, typed: string): number | null {
    return readAt(this.faults, at, typed, optional(percent, null), null);
  }

  number(at: string, typed: string): number | null {
    return readAt(this.faults, at, typed, optional(quantity, null), null);
  }

  date(at: string, typed: string): string | null {
    return readAt(this.faults, at, typed, optional(day(this.context.month), null), null);
  }

  days(at: string, typed: string): number | null {
    return readAt(this.faults, at, typed, optional(whole('days'), null), null);
  }

  sovLine(row: GridRow, i: number): JobInput['sov'][number] {
    const at = (key: string) => `sov.${i}.${key}`;
    if (text(row.line) === '') this.faults.set(at('line'), 'Expected a line number');
    if (text(row.description) === '') this.faults.set(at('description'), 'Expected a description');
    return {
      line: text(row.line),
      section: text(row.section),
      description: text(row.description),
      scheduledValue: this.amount(at('value'), text(row.value)),
      quantity: this.number(at('quantity'), text(row.quantity)),
      unit: text(row.unit),
      retentionRate: this.percent(at('retention'), text(row.retention)),
    };
  }

  budgetLine(row: GridRow, i: number, lines: ReadonlySet<string>): JobInput['budget'][number] {
    const at = (key: string) => `budget.${i}.${key}`;
    const code = text(row.code);
    const type = text(row.type).toLowerCase();
    if (code === '') this.faults.set(at('code'), 'Expected a cost code');
    else if (!this.context.costCodes.has(code))
      this.faults.set(at('code'), `There is no cost code ${code}; add it below, or choose another`);
    if (!COST_TYPES.includes(type as CostType)) this.faults.set(at('type'), `Expected one of ${COST_TYPES.join(', ')}`);
    if (text(row.sovLine) !== '' && !lines.has(text(row.sovLine)))
      this.faults.set(at('sovLine'), `There is no SOV line ${text(row.sovLine)} above`);
    return {
      section: text(row.section),
      costCode: code,
      costType: type as CostType,
      sovLine: text(row.sovLine),
      description: text(row.description),
      quantity: this.number(at('quantity'), text(row.quantity)),
      unit: text(row.unit),
      hours: this.number(at('hours'), text(row.hours)),
      amount: this.amount(at('amount'), text(row.amount)),
    };
  }
}
