/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { ChargeEntry, DayworkView, JobCharging, RunPreview, UnbilledJob } from '../../../wire/charging';
import { openPage } from '../../test/openPage';
import { choose, type } from '../../test/typing';
import { DayworkInvoicePage } from './DayworkInvoicePage';
import { JobChargingPage } from './JobChargingPage';
import { UnbilledPage } from './UnbilledPage';

afterEach(cleanup);

const UNBILLED: UnbilledJob = {
  job: '2121',
  jobName: 'Leaks',
  client: 'Q',
  clientName: 'Quillane Developments',
  pricing: 'charged',
  entries: 2,
  cost: 30_000,
  charge: 36_000,
  heldEntries: 0,
  heldCharge: 0,
  oldest: '2031-04-10',
  ceiling: 100_000,
  invoiced: 45_000,
  charged: 81_000,
  why: null,
};
const ENTRY: ChargeEntry = {
  id: 7,
  dated: '2031-04-10',
  postedOn: '2031-04-10',
  countsFrom: '2031-04-10',
  reference: 'DN-1',
  party: 'BARROW',
  description: 'Lead',
  wording: '',
  section: '',
  costCode: '0520',
  costType: 'material',
  hours: null,
  cost: 10_000,
  charge: 12_000,
  mark: 'yes',
  from: null,
  markup: null,
  rung: null,
  rate: null,
  marked: 200_000,
  postingId: 4,
  sheet: null,
};
const CHARGING: JobCharging = {
  unbilled: UNBILLED,
  entries: [ENTRY, { ...ENTRY, id: 8, reference: 'DN-2', cost: 20_000, charge: 24_000 }],
  invoices: [],
  markups: [{ costType: 'material', markup: 200_000 }],
  markupsSeen: 'm',
  nextReference: 'D-2',
  taxName: 'VAT',
  taxRate: 200_000,
};
const PREVIEW: RunPreview = {
  seen: 's',
  invoices: [
    {
      job: '2121',
      jobName: 'Leaks',
      client: 'Q',
      clientName: 'Quillane Developments',
      reference: 'D-2',
      dueOn: '2031-05-30',
      entries: 2,
      cost: 30_000,
      lines: [{ dated: '2031-04-10', words: 'Lead', charge: 36_000 }],
      amount: 36_000,
      tax: 7200,
      payable: 43_200,
      journal: { dated: '2031-04-30', lines: [] },
      before: -36_000,
      after: 0,
    },
  ],
  notReady: [{ job: '2121', jobName: 'Leaks', entries: 1, charge: 500, why: 'held' }],
};
const ISSUED = { invoices: [{ job: '2121', reference: 'D-2', payable: 43_200 }] };
const job = () => <JobChargingPage />;
const openJob = (replies: Parameters<typeof openPage>[3] = {}) =>
  openPage(job, '/jobs/:number/charging', '/jobs/2121/charging?as-of=2031-04', { jobCharging: CHARGING, ...replies });

test('over all jobs: a job is left out by its box; what is previewed is issued as it was shown, once', async () => {
  const other = { ...UNBILLED, job: '2108', jobName: 'Tower', ceiling: null, charge: 10_000 };
  const { sent } = openPage(() => <UnbilledPage />, '/billing/unbilled', '/billing/unbilled?as-of=2031-04', {
    unbilled: [UNBILLED, other, { ...other, job: '2090', why: 'is locked' }],
    previewRun: PREVIEW,
    issueRun: ISSUED,
  });
  // A ceiling is warned of from 80 % on.
  expect(await screen.findByText('1,000.00 · 81 % charged')).toBeTruthy();
  expect(screen.queryByLabelText('Invoice job 2090 now')).toBeNull();
  fireEvent.click(screen.getByLabelText('Invoice job 2108 now'));
  await choose('Lines', 'one line a kind of cost');
  fireEvent.click(await screen.findByRole('button', { name: 'Preview 1 invoice, 360.00' }));
  expect(await screen.findByText('2121 Leaks: 1 entry, 5.00, held')).toBeTruthy();
  const asked = {
    dated: '2031-04-30',
    cutOff: '2031-04-30',
    invoices: [{ job: '2121', reference: '', shown: 'cost-types', wording: '', entries: null }],
  };
  expect(sent('previewRun')).toEqual([asked]);
  fireEvent.click(screen.getByRole('button', { name: 'Issue 1 invoice, 432.00 with tax' }));
  await waitFor(() => expect(sent('issueRun')).toEqual([{ ...asked, seen: 's' }]));
  // Sent, it is not offered again.
  await waitFor(() => expect(screen.queryByRole('button', { name: /^Issue/ })).toBeNull());
});

test('what is asked for otherwise is previewed anew before it can be issued; a refusal leaves all that was typed', async () => {
  const message = 'More than the ceiling of the job';
  const { sent } = openJob({ previewRun: PREVIEW, issueRun: { status: 400, body: { message, faults: [] } } });
  fireEvent.click(await screen.findByLabelText('Pick DN-1, 0520'));
  type('Words above the lines', 'After the storm');
  fireEvent.click(screen.getByRole('button', { name: 'Preview the 1 entry picked, 120.00' }));
  fireEvent.click(await screen.findByRole('button', { name: /^Issue 1 invoice/ }));
  expect(await screen.findByText(message)).toBeTruthy();
  expect(sent('issueRun')[0]).toMatchObject({
    invoices: [{ job: '2121', reference: 'D-2', wording: 'After the storm', entries: [7] }],
  });
  type('Reference', 'R-9');
  expect(screen.queryByRole('button', { name: /^Issue/ })).toBeNull();
  expect(screen.getByLabelText<HTMLInputElement>('Words above the lines').value).toBe('After the storm');
});

test('entries picked are held, charged from a day, marked up and worded together: only what is typed is said', async () => {
  const { sent } = openJob({ markEntries: { marked: 2 } });
  fireEvent.click(await screen.findByRole('button', { name: 'Pick all 2' }));
  fireEvent.click(screen.getByRole('button', { name: 'Hold' }));
  await waitFor(() => expect(sent('markEntries')).toEqual([{ entries: [7, 8], mark: 'hold' }]));
  fireEvent.click(await screen.findByLabelText('Pick DN-2, 0520'));
  fireEvent.click(screen.getByRole('button', { name: 'From, markup, words …' }));
  await screen.findByLabelText('Markup, %');
  type('Markup, %', 'twelve');
  fireEvent.click(await screen.findByRole('button', { name: 'Save for 1 entry' }));
  expect(await screen.findByText(/percentage/)).toBeTruthy();
  type('Markup, %', '12.5');
  type('Words on the invoice', 'Lead to the valley');
  fireEvent.click(screen.getByRole('button', { name: 'Save for 1 entry' }));
  await waitFor(() => expect(sent('markEntries')[1]).toEqual({ entries: [8], markup: 125_000, wording: 'Lead to the valley' }));
});

test('the markups of a job are saved whole; an empty one is none', async () => {
  const { sent } = openJob({ saveMarkups: {} });
  fireEvent.click(await screen.findByRole('button', { name: 'Markups: material 20 % …' }));
  type('Material, %', '');
  type('Labour, %', '8');
  fireEvent.click(screen.getByRole('button', { name: 'Save markups' }));
  await waitFor(() => expect(sent('saveMarkups')).toEqual([{ seen: 'm', markups: [{ costType: 'labour', markup: 80_000 }] }]));
});

const VIEW: DayworkView = {
  job: '2121',
  jobName: 'Leaks',
  client: 'Q',
  clientName: 'Quillane Developments',
  reference: 'D-1',
  number: 89,
  dated: '2031-04-20',
  cutOff: '2031-04-20',
  dueOn: '2031-05-20',
  status: 'issued',
  shown: 'entries',
  wording: '',
  lines: [{ dated: '2031-04-10', words: 'Lead', charge: 36_000 }],
  entries: [],
  amount: 36_000,
  tax: 7200,
  payable: 43_200,
  credits: [],
  receipts: [],
  open: 43_200,
  postingId: 9,
  nextCreditNote: 'CN-1',
  can: { creditInFull: null, creditInPart: null, receive: null },
};
const openInvoice = (view: DayworkView, replies: Parameters<typeof openPage>[3] = {}) =>
  openPage(
    () => <DayworkInvoicePage receive={() => <p>money</p>} />,
    '/jobs/:number/charging/:invoice',
    '/jobs/2121/charging/D-1?as-of=2031-04',
    { dayworkInvoice: view, ...replies },
  );

test('an invoice is credited in part by an amount, which has to be typed, or in full', async () => {
  const { sent } = openInvoice(VIEW, { creditDaywork: { postingId: 12 } });
  fireEvent.click(await screen.findByRole('button', { name: 'Credit it …' }));
  fireEvent.click(screen.getByLabelText(/in part/));
  type('Reason', 'Counted twice');
  fireEvent.click(screen.getByRole('button', { name: 'Credit' }));
  await waitFor(() => expect(screen.getByLabelText('Amount before tax').getAttribute('aria-invalid')).toBe('true'));
  type('Amount before tax', '50');
  fireEvent.click(await screen.findByRole('button', { name: 'Credit 50.00 before tax' }));
  const body = { dated: '2031-04-30', creditNote: 'CN-1', reason: 'Counted twice' };
  await waitFor(() => expect(sent('creditDaywork')).toEqual([{ ...body, amount: 5000 }]));
  fireEvent.click(screen.getByLabelText(/in full/));
  fireEvent.click(await screen.findByRole('button', { name: 'Credit 432.00' }));
  await waitFor(() => expect(sent('creditDaywork')[1]).toEqual({ ...body, amount: null }));
});

test('a draft is issued, or deleted at the second press; nothing is received or credited on it', async () => {
  const { sent } = openInvoice(
    {
      ...VIEW,
      status: 'draft',
      number: null,
      dueOn: null,
      open: 0,
      can: { creditInFull: 'It is a draft', creditInPart: 'It is a draft', receive: 'It is a draft' },
    },
    { issueDaywork: {}, deleteDaywork: {} },
  );
  fireEvent.click(await screen.findByRole('button', { name: 'Issue it, 432.00' }));
  await waitFor(() => expect(sent('issueDaywork')).toHaveLength(1));
  expect(screen.queryByText('money')).toBeNull();
  expect(screen.queryByRole('button', { name: 'Credit it …' })).toBeNull();
});
