import { displayDate } from '../../../core/calendar/displayDate';
import type { QuotationInput } from '../../../wire/quotations';
import type { Texts } from '../../kit/form/codecSchema';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readCells, readRows, rowOf } from '../../kit/grid/rowCodecs';
import { amount, asTyped, day, oneOf, optional, whole, words, yes, type Codec, type Faults } from '../../kit/typed/codecs';
import { part } from '../../kit/typed/parts';
import { readDate } from '../../kit/typed/readDate';

export const PRESENTATIONS = ['lump-sum', 'section', 'line'] as const;

/** When a payment falls due: on a day, or at a stage in words. */
function when(month: string): Codec<{ dueOn: string | null; stage: string }> {
  return {
    parse: (text) => {
      const typed = text.trim();
      // A bare number is no day: the month alone would be guessed.
      const dueOn = /[a-z]|[./-]/i.test(typed) && /\d/.test(typed) ? readDate(typed, month) : null;
      return { ok: true, value: { dueOn, stage: dueOn ? '' : typed } };
    },
    format: ({ dueOn, stage }) => (dueOn ? displayDate(dueOn) : stage),
    nothing: { dueOn: null, stage: '' },
    month,
  };
}

/** How what is typed of a quotation is read: its fields, its alternates, its payments. */
export function quotationCodecs(digits: number, month: string) {
  const name = words('Expected a name');
  return {
    facts: {
      title: words('Expected a title'),
      estimate: whole('the estimate'),
      contact: words(),
      email: words(),
      validUntil: optional(day(month), null),
      presentation: oneOf(PRESENTATIONS),
      quantities: yes,
      unitPrices: yes,
      introduction: asTyped,
      exclusions: asTyped,
      terms: asTyped,
    },
    alternates: { name, amount: amount(digits) },
    payments: { name, part: part(digits), when: when(month) },
  };
}
export type QuotationCodecs = ReturnType<typeof quotationCodecs>;

/** The grids of a quotation as typed. */
export interface QuotationRows {
  alternates: readonly GridRow[];
  payments: readonly GridRow[];
}
export interface QuotationForm extends QuotationRows {
  facts: Texts<QuotationCodecs['facts']>;
}

export function formOf(it: QuotationInput, codecs: QuotationCodecs): QuotationForm {
  return {
    facts: rowOf(codecs.facts, it) as QuotationForm['facts'],
    alternates: it.alternates.map((one) => rowOf(codecs.alternates, one)),
    payments: it.payments.map((one) => rowOf(codecs.payments, { name: one.name, part: one, when: one })),
  };
}

/** Reads the form; faults by `facts.x`, `alternates.row.column`, `payments.row.column`. */
export function readQuotation(
  form: QuotationForm,
  version: number,
  codecs: QuotationCodecs,
): { faults: Faults; input: QuotationInput } {
  const faults: Faults = new Map();
  const facts = readCells(codecs.facts, form.facts, faults, 'facts.');
  const alternates = readRows(codecs.alternates, form.alternates, faults, { under: 'alternates.' });
  const payments = readRows(codecs.payments, form.payments, faults, { under: 'payments.' });
  return {
    faults,
    input: {
      version,
      ...facts,
      alternates: alternates.map((it) => it.value),
      payments: payments.map(({ value: { name, part, when } }) => ({ name, ...part, ...when })),
    },
  };
}
