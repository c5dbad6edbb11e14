/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { JobFileView } from '../../../wire/jobFile';
import { openPage, type Replies } from '../../test/openPage';
import { FactsForm } from './FactsForm';

afterEach(cleanup);

const FACTS: JobFileView['facts'] = {
  name: 'Merrowby infirmary',
  client: 'MHT',
  contractReference: 'MHT-C-031',
  site: 'Infirmary Road',
  manager: 'Ines Tolland',
  estimator: '',
  startsOn: '2030-04-11',
  finishesOn: '2031-08-31',
  defectsEnd: null,
  revenueMethod: 'cost-to-cost',
  pricing: 'fixed',
  ceiling: null,
  retention: { rate: 50_000, materialsRate: null, stepAt: 500_000, stepTo: 25_000, stepApplies: 'further', cap: null },
  noRetention: false,
  taxRate: 200_000,
  termsDays: null,
  kind: 'HOUSING',
  department: '',
  workKind: '',
};

function open(more: Partial<JobFileView> = {}, replies: Replies = {}) {
  const view = { seen: { facts: 'as-opened' }, facts: FACTS, fixed: false, lines: [], ...more } as unknown as JobFileView;
  const typed: boolean[] = [];
  const onTyped = (it: boolean) => void typed.push(it);
  const Page = () => <FactsForm job="2105" view={view} onTyped={onTyped} />;
  return {
    ...openPage(Page, '/', '/', {
      saveJobFacts: {},
      lists: {
        clients: [{ code: 'MHT', name: 'Merrowby Health', termsDays: 30 }],
        people: [],
        kinds: [{ code: 'HOUSING', name: 'Housing' }],
        departments: [],
        workKinds: [],
      } as never,
      ...replies,
    }),
    typed,
  };
}
const field = (label: string) => screen.findByLabelText<HTMLInputElement>(label);
const put = async (label: string, text: string) => {
  const input = await field(label);
  fireEvent.change(input, { target: { value: text } });
  fireEvent.blur(input);
};
const save = async () => fireEvent.click(await screen.findByRole('button', { name: 'Save job details' }));

test('what is opened and saved with one thing changed is the same but for that one, and what it was opened with is told', async () => {
  const { sent, typed } = open();
  await put('Site', 'Infirmary Road, Merrowby');
  await save();
  await waitFor(() => expect(sent('saveJobFacts')).toEqual([{ ...FACTS, site: 'Infirmary Road, Merrowby', seen: 'as-opened' }]));
  await waitFor(() => expect(typed.at(-1)).toBe(false));
});

test('percentages, days and the way of a step are read as they are typed and chosen, and tidied when they are left', async () => {
  const { sent } = open();
  await put('Planned finish', '30/9/31');
  await put('Retention %', '7.5 %');
  await put('Cap %', '3');
  expect((await field('Planned finish')).value).toBe('30 Sep 2031');
  fireEvent.pointerDown(await screen.findByRole('combobox', { name: 'Reduction applies to' }), { button: 0 });
  fireEvent.keyDown(await screen.findByRole('option', { name: 'all work' }), { key: 'Enter' });
  await save();
  // 7.5 % is 75,000 millionths.
  const retention = { ...FACTS.retention, rate: 75_000, cap: 30_000, stepApplies: 'all' };
  await waitFor(() =>
    expect(sent('saveJobFacts')).toEqual([{ ...FACTS, finishesOn: '2031-09-30', retention, seen: 'as-opened' }]),
  );
});

test('what cannot be read is said at its field and nothing is sent; all that was typed stays', async () => {
  const { sent } = open();
  await put('Start', '31 Feb 2031');
  await put('Terms, days', 'thirty');
  await save();
  expect(await screen.findByText('"31 Feb 2031" is not a valid date; enter one such as 30 Apr 2031')).toBeDefined();
  expect((await field('Terms, days')).getAttribute('aria-invalid')).toBe('true');
  expect([(await field('Start')).value, (await field('Terms, days')).value, sent('saveJobFacts')]).toEqual([
    '31 Feb 2031',
    'thirty',
    [],
  ]);
});

test('what the server refuses stands at the field it names, within the retention rule too', async () => {
  const message = 'The rate it reduces to is above the rate it reduces from';
  const faults = [{ field: 'retention.stepTo', message }];
  open({}, { saveJobFacts: { status: 400, body: { message, faults } } });
  await put('Reduces to %', '9');
  await save();
  expect(await screen.findByText(message)).toBeDefined();
  expect((await field('Reduces to %')).getAttribute('aria-invalid')).toBe('true');
});

test('what the job was billed with cannot be changed any more; the rest can', async () => {
  open({ fixed: true });
  await field('Name');
  const off = ['Retention %', 'Tax %', 'Terms, days', 'Cap %', 'Reduction applies to', 'Revenue recognition'];
  for (const label of off) expect([label, (await field(label)).disabled]).toEqual([label, true]);
  for (const label of ['Name', 'Site', 'Planned finish']) expect([label, (await field(label)).disabled]).toEqual([label, false]);
});
