import { expect, test } from '@jest/globals';
import type { QuotationInput } from '../../../wire/quotations';
import { formOf, quotationCodecs, readQuotation } from './quotationForm';

const input: QuotationInput = {
  version: 2,
  estimate: 1,
  title: 'Roof',
  presentation: 'line',
  quantities: true,
  unitPrices: false,
  contact: 'H',
  email: 'h@x.example',
  introduction: 'Two\nlines',
  exclusions: 'a\nb',
  terms: 't',
  validUntil: '2031-06-30',
  alternates: [{ name: 'Green', amount: -5_050 }],
  payments: [
    { name: 'Order', rate: 333_333, amount: null, dueOn: null, stage: 'with the order' },
    { name: 'Handover', rate: null, amount: 400_000, dueOn: '2031-12-19', stage: '' },
  ],
};
const codecs = quotationCodecs(2, '2031-04');

test('a quotation shown is read back as it was: per cents by their sign, days as days, stages as words', () => {
  const { faults, input: read } = readQuotation(formOf(input, codecs), 2, codecs);
  expect([...faults]).toEqual([]);
  expect(read).toEqual(input);
});

test('what is wrong is said where it stands; a bare number is a stage and no guessed day', () => {
  const form = formOf(input, codecs);
  const { faults, input: read } = readQuotation(
    {
      ...form,
      facts: { ...form.facts, title: ' ', validUntil: 'soon' },
      alternates: [{ name: '', amount: 'x' }, {}],
      payments: [{ name: 'a', part: '120 %', when: '2' }, { part: '' }],
    },
    2,
    codecs,
  );
  expect([...faults.keys()].sort()).toEqual([
    'alternates.0.amount',
    'alternates.0.name',
    'facts.title',
    'facts.validUntil',
    'payments.0.part',
  ]);
  expect(read.payments[0]).toMatchObject({ dueOn: null, stage: '2' });
});

test('a bare number that may be a percentage is asked about; with its sign, or its pence, it is taken', () => {
  const form = formOf(input, codecs);
  const parts = ['20', '20 %', '20.00', '100', '101', '1,500'];
  const payments = parts.map((part) => ({ name: 'a', part, when: 'now' }));
  const { faults, input: read } = readQuotation({ ...form, payments }, 2, codecs);
  expect([...faults]).toEqual([
    ['payments.0.part', 'Enter 20 % or 20.00: "20" may be either'],
    ['payments.3.part', 'Enter 100 % or 100.00: "100" may be either'],
  ]);
  expect(read.payments.map((it) => it.rate ?? it.amount)).toEqual(expect.arrayContaining([200_000, 2000, 10_100, 150_000]));
});
