import type { QuotationInput, SendInput } from '../../wire/quotations';

export const payment = (name: string, rate: number | null, amount: number | null) => ({
  name,
  rate,
  amount,
  dueOn: null,
  stage: `at ${name}`,
});
export const input = (more: Partial<QuotationInput> = {}): QuotationInput => ({
  version: 0,
  estimate: 1,
  title: 'Roof of the mill',
  presentation: 'line',
  quantities: true,
  unitPrices: true,
  contact: 'Mr Hale',
  email: 'hale@northbeck.example',
  introduction: 'As walked on 3 March.',
  exclusions: 'Asbestos\n\n  Lightning protection ',
  terms: 'Thirty days.',
  validUntil: '2031-06-30',
  alternates: [{ name: 'Green roof', amount: 143_777 }],
  payments: [payment('Start', 300_000, null), payment('Finish', 700_000, null)],
  ...more,
});
export const message: SendInput = {
  on: '2031-05-02',
  to: 'hale@northbeck.example',
  subject: 'Our quotation – “mill”',
  message: 'Dear Mr Hale,\nplease find it attached.',
};
export const AT = '2031-05-10T11:12:00.000Z';
