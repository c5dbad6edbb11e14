import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { QuotationInput } from '../../../wire/quotations';
import type { GridRow } from '../../kit/grid/gridTypes';
import type { Faults } from '../../kit/typed/readCells';
import { readDate } from '../../kit/typed/readDate';
import { partText, readPart } from '../../kit/typed/readPart';
import { readAmount } from '../../kit/typed/tidyAmount';

/** A quotation as typed: what is typed freely as it is, alternates and payments as rows. */
export interface QuotationForm extends Omit<QuotationInput, 'version' | 'validUntil' | 'alternates' | 'payments'> {
  validUntil: string;
  alternates: readonly GridRow[];
  payments: readonly GridRow[];
}

export function formOf(it: QuotationInput, digits: number): QuotationForm {
  const { estimate, title, presentation, quantities, unitPrices, contact, email, introduction, exclusions, terms } = it;
  return {
    ...{ estimate, title, presentation, quantities, unitPrices, contact, email, introduction, exclusions, terms },
    validUntil: displayDate(it.validUntil),
    alternates: it.alternates.map((one) => ({ name: one.name, amount: displayExact(one.amount, digits) })),
    payments: it.payments.map((one) => ({
      name: one.name,
      part: partText(one, digits),
      when: one.dueOn ? displayDate(one.dueOn) : one.stage,
    })),
  };
}

const filled = (row: GridRow) => Object.values(row).some((text) => text.trim() !== '');

/** Reads the form. A payment's part is a percentage where it ends with %, else an amount; its time a day, or a stage in words. */
export function readQuotation(
  form: QuotationForm,
  version: number,
  context: { digits: number; month: string },
): { faults: Faults; input: QuotationInput } {
  const faults: Faults = new Map();
  const validUntil = form.validUntil.trim() === '' ? null : readDate(form.validUntil, context.month);
  if (form.validUntil.trim() !== '' && !validUntil) faults.set('validUntil', 'Expected a day such as 30 Jun 2031');
  if (form.title.trim() === '') faults.set('title', 'Expected a title');
  const amountAt = (at: string, typed: string) => {
    const value = readAmount(typed, context.digits);
    if (value === null) faults.set(at, typed.trim() === '' ? 'Expected an amount' : `"${typed}" is not a valid amount`);
    return value ?? 0;
  };
  const named = (at: string, typed: string | undefined) => {
    if ((typed ?? '').trim() === '') faults.set(at, 'Expected a name');
    return (typed ?? '').trim();
  };
  return {
    faults,
    input: {
      ...form,
      title: form.title.trim(),
      version,
      validUntil,
      alternates: form.alternates.flatMap((row, i) =>
        filled(row)
          ? [{ name: named(`alternates.${i}.name`, row.name), amount: amountAt(`alternates.${i}.amount`, row.amount ?? '') }]
          : [],
      ),
      payments: form.payments.flatMap((row, i) => {
        if (!filled(row)) return [];
        const when = (row.when ?? '').trim();
        // A bare number is no day: the month alone would be guessed.
        const dueOn = /[a-z]|[./-]/i.test(when) && /\d/.test(when) ? readDate(when, context.month) : null;
        return [
          {
            name: named(`payments.${i}.name`, row.name),
            ...readPart(faults, `payments.${i}.part`, row.part, context.digits),
            dueOn,
            stage: dueOn ? '' : when,
          },
        ];
      }),
    },
  };
}
