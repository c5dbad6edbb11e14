/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { EMPTY_DAY } from '../../../core/daySheets/daySheet';
import type { DayOfJob, DaySheetView } from '../../../wire/daySheets';
import { openPage, type Replies } from '../../test/openPage';
import { DayRegisterPage } from './DayRegisterPage';
import { DaySheetPage } from './DaySheetPage';

afterEach(cleanup);

const hours = { employee: 'E1', section: 'Roof', costCode: '100', workKind: '', pay: null, hours: 80_000, description: '' };
const VIEW: DaySheetView = {
  job: 'J1',
  jobName: 'Mill',
  dated: '2031-04-22',
  crew: 'Ann Ash',
  seen: 's',
  leftOut: '',
  weekSheet: '8',
  differs: false,
  differences: [],
  writtenBy: 'Ann Ash',
  writtenAt: '2031-04-22T15:00:00.000Z',
  arrived: [],
  weekHours: [],
  day: {
    ...EMPTY_DAY,
    hours: [{ ...hours, charged: true, signature: 0 }],
    photos: [{ photo: 'a'.repeat(64), description: 'East face' }],
  },
};
const lists = {
  employees: [{ employee: 'E1', name: 'Ann Ash', wageClass: '', startsOn: null, endsOn: null }],
  jobs: [],
  costCodes: [{ code: '100', description: 'Deck' }],
  workKinds: [],
  departments: [],
  rules: [],
  me: null,
};
const open = (view: Partial<DaySheetView>, replies: Replies = {}) =>
  openPage(DaySheetPage, '/d/:job/:dated/:crew', '/d/J1/2031-04-22/Ann%20Ash', {
    daySheet: { ...VIEW, ...view },
    timeLists: lists,
    ...replies,
  });

test('where site and week sheet differ each row is taken or left; approved ones are not offered', async () => {
  const of = { section: 'Roof', costCode: '100', workKind: '', pay: null };
  const differences = [
    { ...of, employee: 'E1', site: 80_000, office: 70_000, fixed: null },
    { ...of, employee: 'E1', costCode: '200', site: 0, office: 10_000, fixed: null },
    { ...of, employee: 'E2', site: 80_000, office: 0, fixed: 'approved' as const },
  ];
  const { sent } = open({ differs: true, differences }, { takeDayHours: {} });
  const other = await screen.findByRole('region', { name: 'Differences' });
  expect(other.textContent).toContain('Ann AshRoof · 10087');
  expect(screen.getAllByRole('checkbox')).toHaveLength(2);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Ann Ash, Roof · 200' }));
  fireEvent.click(screen.getByRole('button', { name: 'Take the site’s hours, 1 row' }));
  await waitFor(() =>
    expect(sent('takeDayHours')).toEqual([{ seen: 's', rows: [JSON.stringify(['E1', 'Roof', '100', '', null])] }]),
  );
  cleanup();
  open({ differs: true, differences }, { takeDayHours: { status: 422, body: { message: 'Hours of this day are approved' } } });
  fireEvent.click(await screen.findByRole('button', { name: /^Take the site’s hours/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('Hours of this day are approved');
});

test('what is to be charged has a sheet to be signed, a photo that has not arrived says so', async () => {
  open({ leftOut: 'Weather, on the phone: Rain' });
  expect((await screen.findByRole('link', { name: 'Daywork sheet, to be signed (PDF)' })).getAttribute('href')).toBe(
    '/api/day-sheets/J1/2031-04-22/Ann%20Ash/daywork/0',
  );
  expect(screen.getByText('Not arrived from the phone yet')).toBeTruthy();
  expect(screen.getByText('Weather, on the phone: Rain')).toBeTruthy();
  expect(screen.queryByRole('region', { name: 'The week sheet has other hours' })).toBeNull();
});

test('days without a sheet are flagged and counted, days with one say what happened', async () => {
  const day = (dated: string, more: Partial<DayOfJob> = {}): DayOfJob => ({ dated, missing: false, sheets: [], ...more });
  const said = { crew: 'Ann Ash', people: 2, hours: 165_000, incidents: 1, unsigned: 3, differs: true };
  const days = [
    day('2031-04-21', { missing: true }),
    day('2031-04-22', { sheets: [said] }),
    day('2031-04-23', { missing: true }),
  ];
  const rest = ['2031-04-24', '2031-04-25', '2031-04-26', '2031-04-27'].map((it) => day(it));
  const { asked } = openPage(DayRegisterPage, '/', '/?as-of=2031-04', {
    dayRegister: { week: '2031-04-21', jobs: [{ job: 'J1', jobName: 'Mill', days: [...days, ...rest] }] },
  });
  expect(await screen.findByText('2 days are missing')).toBeTruthy();
  expect(asked.find((it) => it.call === 'dayRegister')?.query).toEqual({ on: '2031-04-30' });
  expect(screen.getByRole('link', { name: 'Ann Ash' }).getAttribute('href')).toMatch(
    /^\/costs\/day-sheets\/J1\/2031-04-22\/Ann%20Ash/,
  );
  const row = screen.getByRole('row', { name: /Mill/ }).textContent;
  for (const words of ['16.5 h, 2 people', '1 incident', '3 to be signed', 'hours differ']) expect(row).toContain(words);
});
