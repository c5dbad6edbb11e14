import { isFilled } from '../../kit/grid/filledRow';
import { amount, day, optional, readAt, type Faults } from '../../kit/typed/codecs';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { QuotationInput } from '../../../wire/quotations';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { part } from '../../kit/typed/parts';

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
      part: part(digits).format(one),
      when: one.dueOn ? displayDate(one.dueOn) : one.stage,
    })),
  };
}

/** Reads the form. A payment's part is a percentage where it ends with %, else an amount; its time a day, or a stage in words. */
export function readQuotation(
  form: QuotationForm,
  version: number,
  context: { digits: number; month: string },
): { faults: Faults; input: QuotationInput } {
  const faults: Faults = new Map();
  const validUntil = readAt(faults, 'validUntil', form.validUntil, optional(day(context.month), null), null);
  if (form.title.trim() === '') faults.set('title', 'Expected a title');
  const money = amount(context.digits);
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
        isFilled(row)
          ? [
              {
                name: named(`alternates.${i}.name`, row.name),
                amount: readAt(faults, `alternates.${i}.amount`, row.amount, money, 0),
              },
            ]
          : [],
      ),
      payments: form.payments.flatMap((row, i) => {
        if (!isFilled(row)) return [];
        const when = (row.when ?? '').trim();
        // A bare number is no day: the month alone would be guessed.
        const dueOn = /[a-z]|[./-]/i.test(when) && /\d/.test(when) ? readDate(when, context.month) : null;
        return [
          {
            name: named(`payments.${i}.name`, row.name),
            ...readAt(faults, `payments.${i}.part`, row.part, part(context.digits), { rate: null, amount: 0 }),
            dueOn,
            stage: dueOn ? '' : when,
          },
        ];
      }),
    },
  };
}
