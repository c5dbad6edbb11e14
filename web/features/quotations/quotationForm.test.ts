import { expect, test } from '@jest/globals';
import type { QuotationInput } from '../../../wire/quotations';
import { formOf, readQuotation } from './quotationForm';

const input: QuotationInput = {
  ...{
    version: 2,
    estimate: 1,
    title: 'Roof',
    presentation: 'line',
    quantities: true,
    unitPrices: false,
    contact: 'H',
    email: 'h@x.example',
  },
  ...{
    introduction: 'Two\nlines',
    exclusions: 'a\nb',
    terms: 't',
    validUntil: '2031-06-30',
    alternates: [{ name: 'Green', amount: -5_050 }],
  },
  payments: [
    { name: 'Order', rate: 333_333, amount: null, dueOn: null, stage: 'with the order' },
    { name: 'Handover', rate: null, amount: 400_000, dueOn: '2031-12-19', stage: '' },
  ],
};
const context = { digits: 2, month: '2031-04' };

test('a quotation shown is read back as it was: per cents by their sign, days as days, stages as words', () => {
  const { faults, input: read } = readQuotation(formOf(input, 2), 2, context);
  expect([...faults]).toEqual([]);
  expect(read).toEqual(input);
});

test('what is wrong is said where it stands; a bare number is a stage and no guessed day', () => {
  const form = formOf(input, 2);
  const { faults, input: read } = readQuotation(
    {
      ...form,
      title: ' ',
      validUntil: 'soon',
      alternates: [{ name: '', amount: 'x' }, {}],
      payments: [{ name: 'a', part: '120 %', when: '2' }, { part: '' }],
    },
    2,
    context,
  );
  expect([...faults.keys()].sort()).toEqual([
    'alternates.0.amount',
    'alternates.0.name',
    'payments.0.part',
    'title',
    'validUntil',
  ]);
  expect(read.payments[0]).toMatchObject({ dueOn: null, stage: '2' });
});
