import { displayExact } from '../../../../core/money/display';
import { formatPercentShortest, formatQuantity } from '../../../../core/money/rate';
import type { JobBeginning, JobSetup } from '../../../../wire/jobs';
import type { GridRow } from '../../../kit/grid/gridTypes';
import type { JobForm } from './readJob';

/** What can be taken from another job. */
export const COPIED = {
  sov: 'schedule of values',
  budget: 'budget',
  retention: 'retention and terms',
  team: 'team',
  checklist: 'checklist',
} as const;
export type CopiedPart = keyof typeof COPIED;

const percent = (rate: number | null) => (rate === null ? '' : formatPercentShortest(rate));
const quantity = (value: number | null) => (value === null ? '' : formatQuantity(value));

/** Retention, tax, terms and recognition as they are typed. */
function termsAsTyped(of: Pick<JobSetup, 'retention' | 'taxRate' | 'termsDays' | 'revenueMethod'>) {
  const { rate, materialsRate, stepAt, stepTo, stepApplies, cap } = of.retention;
  return {
    retention: percent(rate),
    materials: percent(materialsRate),
    stepAt: percent(stepAt),
    stepTo: percent(stepTo),
    stepApplies,
    cap: percent(cap),
    tax: percent(of.taxRate),
    terms: of.termsDays === null ? '' : String(of.termsDays),
    revenueMethod: of.revenueMethod,
  };
}

/** The facts that a new job begins with, as they are typed. */
export function beginningAsTyped(of: JobBeginning) {
  return { ...termsAsTyped(of), department: of.department, workKind: of.workKind, payCode: of.payCode };
}

/** Of what a new job begins with, what takes the place of what it began with before: nothing that was typed. */
export function filledAnew(
  typed: Readonly<Record<string, string>>,
  before: Readonly<Record<string, string>>,
  now: Readonly<Record<string, string>>,
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(now).filter(([name, text]) => (typed[name] ?? '') === (before[name] ?? '') && (typed[name] ?? '') !== text),
  );
}

/** Lays the chosen parts of another job into a new one as typed; without amounts, quantities and hours are left out too. */
export function copyInto(
  form: JobForm,
  from: JobSetup,
  parts: ReadonlySet<CopiedPart>,
  amounts: boolean,
  digits: number,
): JobForm {
  const amount = (value: number) => (amounts ? displayExact(value, digits) : '');
  const measured = (value: number | null) => (amounts ? quantity(value) : '');
  const next: JobForm = { ...form, facts: { ...form.facts } };
  if (parts.has('sov'))
    next.sov = from.sov.map((it): GridRow => ({
      line: it.line,
      section: it.section,
      description: it.description,
      value: amount(it.scheduledValue),
      quantity: measured(it.quantity),
      unit: it.unit,
      retention: percent(it.retentionRate),
    }));
  if (parts.has('budget'))
    next.budget = from.budget.map((it): GridRow => ({
      section: it.section,
      code: it.costCode,
      type: it.costType,
      sovLine: it.sovLine,
      description: it.description,
      quantity: measured(it.quantity),
      unit: it.unit,
      hours: measured(it.hours),
      amount: amount(it.amount),
    }));
  if (parts.has('retention')) Object.assign(next.facts, termsAsTyped(from));
  if (parts.has('team')) next.people = from.people;
  if (parts.has('checklist')) next.checklist = from.checklist;
  return next;
}

const ITS_OWN: readonly string[] = ['number', 'name', 'client', 'awardedOn'];

/** A job as typed without what is its own: to begin others from. */
export function templateOf(form: JobForm): JobForm {
  return { ...form, facts: Object.fromEntries(Object.entries(form.facts).filter(([key]) => !ITS_OWN.includes(key))) };
}
