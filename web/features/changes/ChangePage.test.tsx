/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { CHANGE_LIFE } from '../../../core/changes/changeLife';
import { reasonsOf } from '../../../core/refusals/reasons';
import type { ChangeView } from '../../../wire/changes';
import { openPage, type Asked, type Replies } from '../../test/openPage';
import { cell, put, type } from '../../test/typing';
import { ChangePage, NewChangePage } from './ChangePage';
import { EMPTY_LISTS } from '../../test/emptyLists';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const LISTS = {
  ...EMPTY_LISTS,
  costCodes: [{ code: '100', description: 'Decks', unit: '' }],
  jobs: [{ number: 'J1', name: 'Mill', status: 'on-site', locked: false, sections: [] }],
};
const REVENUE = { line: '1', description: 'Roof', scheduled: 0, billed: 0, revised: 0, actual: 0, estimate: 0 };
const WORK = { section: '', description: 'Outlets', quantity: null, unit: '' };
const saved = (version: number, amount: number): ChangeView => ({
  job: 'J1',
  jobName: 'Mill',
  number: 'CO1',
  title: 'Outlets',
  status: 'draft',
  raisedOn: '2031-04-02',
  version,
  issuedOn: null,
  decidedOn: null,
  reference: '',
  reason: '',
  askedBy: '',
  daysAsked: null,
  daysGranted: null,
  decidedBy: '',
  decision: '',
  asked: 0,
  price: 0,
  cost: 0,
  hours: 0,
  savedBy: '',
  savedAt: '',
  refused: reasonsOf(CHANGE_LIFE, () => null, String),
  effect: null,
  priceLines: [{ ...WORK, line: '1', amount, asked: null, isNew: false }],
  costLines: [{ ...WORK, costCode: '100', costType: 'labour', sovLine: '1', hours: null, amount: 4000 }],
});

const open = (Page: () => React.ReactNode, path: string, replies: Replies = {}) =>
  openPage(Page, path, path.replace(':number', 'J1').replace(':change', 'CO1'), {
    jobChanges: [],
    priceList: { items: [], buildUps: [] },
    lists: LISTS,
    estimateVersusActual: { lines: [], revenue: [REVENUE], unserved: { revised: 0, actual: 0, estimate: 0 } },
    ...replies,
  });
const openNew = (replies: Replies = {}) => open(NewChangePage, '/jobs/:number/changes/new', replies);
const openSaved = (replies: Replies) => open(() => <ChangePage attachments={null} />, '/jobs/:number/changes/:change', replies);

test('a new change order that is left is there again when it is opened, and no more once it is saved', async () => {
  openNew();
  await put('Change, +/−', 1, '250');
  type('Title', 'Outlets');
  type('Change', 'CO7');
  const [line] = (await screen.findAllByLabelText('SOV line, row 1')) as [HTMLElement];
  fireEvent.change(line, { target: { value: '1' } });
  fireEvent.blur(line);
  cleanup();
  const { sent } = openNew({ addChange: { version: 1 } });
  expect([(await cell('Change, +/−', 1)).value, screen.getByLabelText<HTMLInputElement>('Title').value]).toEqual([
    '250.00',
    'Outlets',
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'Save CO7' }));
  await waitFor(() => expect(sent('addChange')).toHaveLength(1));
  expect(sent('addChange')[0]).toMatchObject({ version: 0, number: 'CO7', price: [{ line: '1', amount: 25_000 }], cost: [] });
  await screen.findByText('elsewhere');
  cleanup();
  openNew();
  expect((await cell('Change, +/−', 1)).value).toBe('');
});

test('a cost code that is not there can be added in place; nothing that was typed goes with it', async () => {
  let codes = LISTS.costCodes;
  const { sent } = openNew({
    lists: () => ({ ...LISTS, costCodes: codes }),
    addCostCodes: ({ body }: Asked) => {
      codes = [...codes, ...(body as { codes: typeof codes }).codes];
      return {} as never;
    },
  });
  await put('Cost code', 1, '900');
  await put('Amount', 1, '40');
  type('Description of 900', 'Outlets');
  fireEvent.click(screen.getByRole('button', { name: 'Add 900 to the cost codes' }));
  await waitFor(() => expect(screen.queryByLabelText('Description of 900')).toBeNull());
  expect(sent('addCostCodes')).toEqual([{ codes: [{ code: '900', description: 'Outlets', unit: '' }] }]);
  expect([(await cell('Cost code', 1)).value, (await cell('Amount', 1)).value]).toEqual(['900', '40.00']);
});

test('saved by somebody else meanwhile: theirs is brought in, what was typed stands, and saved again it is sent over theirs', async () => {
  let view = saved(3, 10_000);
  const { sent } = openSaved({
    change: () => view,
    saveChange: ({ body }: Asked) => {
      if ((body as { version: number }).version === 4) return { version: 5 };
      view = { ...saved(4, 10_000), costLines: saved(4, 0).costLines.map((it) => ({ ...it, amount: 9000 })) };
      return { status: 409, body: { message: 'CO1 was saved by Ines meanwhile', faults: [{ field: 'version', message: '' }] } };
    },
  });
  await put('Change, +/−', 1, '250');
  fireEvent.click(screen.getByRole('button', { name: 'Save CO1' }));
  await screen.findByText(/The saved version changed meanwhile/);
  expect([(await cell('Change, +/−', 1)).value, (await cell('Amount', 1)).value]).toEqual(['250.00', '90.00']);
  fireEvent.click(screen.getByRole('button', { name: 'Save CO1' }));
  await waitFor(() => expect(sent('saveChange')).toHaveLength(2));
  expect(sent('saveChange')[1]).toMatchObject({ version: 4, price: [{ amount: 25_000 }], cost: [{ amount: 9000 }] });
});

test('what was typed over a saved one can be given up', async () => {
  openSaved({ change: saved(3, 10_000) });
  await put('Change, +/−', 1, '250');
  type('Title', 'Gullies');
  const discard = await screen.findByRole('button', { name: 'Discard what was typed' });
  fireEvent.click(discard);
  fireEvent.click(await screen.findByRole('button', { name: /Discard what was typed|Yes|Sure/ }));
  await waitFor(async () => expect((await cell('Change, +/−', 1)).value).toBe('100.00'));
  expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Outlets');
});
