/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { EMPTY_DAY } from '../../../core/daySheets/daySheet';
import type { DaySheetView } from '../../../wire/daySheets';
import type { MissingRate, SheetLine, SheetRow, TimePreview, WeekSheetView } from '../../../wire/weekSheets';
import { openPage, type Replies } from '../../test/openPage';
import { PostTimePage } from './PostTimePage';
import { WeekRegisterPage } from './WeekRegisterPage';
import { sheetLine as line, TIME_LISTS as LISTS } from '../../test/timeSheets';
import { choose, put, type } from '../../test/typing';
import { PersonWeekPage } from './PersonWeekPage';
import { NewWeekSheetPage, WeekSheetPage } from './WeekSheetPage';

afterEach(cleanup);

const hoursOf = (more: Partial<SheetRow['hours']>) => ({ submitted: 0, returned: 0, approved: 0, posted: 0, ...more });
const sheet = (name: string, more: Partial<SheetRow> = {}): SheetRow => ({
  sheet: name,
  week: '2031-04-21',
  employees: ['Ann Ash'],
  hours: hoursOf({ approved: 400_000 }),
  ...more,
});
const MISSING: MissingRate = { sheet: '9', line: '2', name: 'Ben Birch', dated: '2031-04-22', message: 'no rate on 2031-04-22' };
const PREVIEW: TimePreview = {
  seen: 'p',
  lines: [],
  jobs: [],
  journals: [],
  entries: 6,
  hours: 400_000,
  pay: 98_000,
  burden: 21_000,
  missing: [],
  leftOut: false,
  classes: { regular: 400_000, overtime: 0, double: 0 },
  late: 0,
};

test('sheets with a line that has no rate are not ticked; the others are previewed, and posted as previewed', async () => {
  const ready = {
    sheets: [
      { ...sheet('8'), missing: [] },
      { ...sheet('9'), missing: [MISSING] },
    ],
    newest: '2031-04',
  };
  const { sent } = openPage(PostTimePage, '/', '/', {
    readyTime: ready,
    previewTime: PREVIEW,
    postTime: { entries: 6, total: 119_000 },
  });
  const box = (name: string) => screen.getByRole<HTMLInputElement>('checkbox', { name });
  await screen.findByRole('checkbox', { name: 'Sheet 8' });
  expect([box('Sheet 8').checked, box('Sheet 9').checked]).toEqual([true, false]);
  expect(screen.getByText(/no rate on/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Post' }).disabled).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Preview 40 h' }));
  // Pay 980.00 and burden 210.00.
  fireEvent.click(await screen.findByRole('button', { name: 'Post 6 lines, 1,190.00' }));
  await waitFor(() => expect(sent('postTime')).toEqual([{ sheets: ['8'], lateOn: null, leaveOut: false, seen: 'p' }]));
});

test('sheets of a month before the newest are proposed for its first day', async () => {
  const ready = { sheets: [{ ...sheet('5', { week: '2031-03-24' }), missing: [] }], newest: '2031-04' };
  const { sent } = openPage(PostTimePage, '/', '/', { readyTime: ready, previewTime: { ...PREVIEW, late: 6 } });
  fireEvent.click(await screen.findByRole('button', { name: 'Preview 40 h' }));
  expect(await screen.findByText('6 lines count on a later day than worked')).toBeTruthy();
  expect(sent('previewTime')).toEqual([{ sheets: ['5'], lateOn: '2031-04-01', leaveOut: false, asOf: '2031-04' }]);
});

test('a preview is of what is ticked: ticking another takes it back; what cannot be priced is not posted', async () => {
  const ready = {
    sheets: [
      { ...sheet('8'), missing: [] },
      { ...sheet('9'), missing: [] },
    ],
    newest: null,
  };
  openPage(PostTimePage, '/', '/', { readyTime: ready, previewTime: { ...PREVIEW, missing: [MISSING] } });
  fireEvent.click(await screen.findByRole('button', { name: 'Preview 80 h' }));
  expect((await screen.findByRole<HTMLButtonElement>('button', { name: /^Post 6 lines/ })).disabled).toBe(true);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Sheet 9' }));
  expect(screen.getByRole('button', { name: 'Preview 40 h' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Post' })).toBeTruthy();
});

const view = (...lines: SheetLine[]): WeekSheetView => ({
  sheet: '8',
  seen: 'w',
  weeks: ['2031-04-21'],
  week: '2031-04-21',
  lines,
  corrects: [],
  correctedBy: [],
});
const openSheet = (shown: WeekSheetView, replies: Replies = {}) =>
  openPage(WeekSheetPage, '/s/:sheet', '/s/8', {
    timeLists: LISTS,
    weekSheet: shown,
    hoursOfWeek: { hours: [] },
    timeRemarks: [],
    ...replies,
  });

test('hours that stand on another sheet too are told before they are approved, and where', async () => {
  const there = {
    sheet: '1',
    employee: 'E1',
    dated: '2031-04-21',
    pay: 'regular' as const,
    hours: 90_000,
    posted: true,
    hasUnits: false,
    job: 'J1',
    section: '',
    costCode: '100',
  };
  openSheet(view(line(1), line(2, { dated: '2031-04-22' })), { hoursOfWeek: { hours: [there] } });
  expect(await screen.findByText(/Ann Ash has 9 h on 21 Apr 2031 on J1 · 100 on sheet 1/)).toBeTruthy();
  expect(screen.queryByText(/22 Apr 2031 on J1/)).toBeNull();
});

test('lines are returned with a reason only, and approved as they were shown', async () => {
  const { sent } = openSheet(view(line(1), line(2, { dated: '2031-04-22', hours: 75_000 })), { returnTime: {}, approveTime: {} });
  fireEvent.click(await screen.findByRole('button', { name: 'Return 2 lines, 15.5 h' }));
  expect(screen.getByText('Say what is to be corrected')).toBeTruthy();
  expect(sent('returnTime')).toEqual([]);
  fireEvent.change(screen.getByRole('textbox', { name: 'Reason for returning' }), {
    target: { value: 'Rained off' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Return 2 lines, 15.5 h' }));
  await waitFor(() => expect(sent('returnTime')).toEqual([{ seen: 'w', lines: [1, 2], reason: 'Rained off' }]));
  cleanup();
  const other = openSheet(view(line(1)), {
    approveTime: { status: 409, body: { message: 'Week sheet 8 changed after you opened it' } },
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Approve 1 line, 8 h' }));
  expect((await screen.findByRole('alert')).textContent).toContain('changed after you opened it');
  expect(other.sent('approveTime')).toEqual([{ seen: 'w', lines: [1] }]);
});

test('a returned line says why and is put right, a posted one is corrected, and neither is approved', async () => {
  openSheet(view(line(1, { state: 'returned', returned: 'Rained off' }), line(2, { state: 'posted', pay: 'regular' })));
  expect(await screen.findByText(/Rained off/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Correct and resubmit' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Correct posted hours' })).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Approve/ }).disabled).toBe(true);
});

test('the register says who has not handed in, and goes to the week before', async () => {
  const register = {
    week: '2031-04-21',
    sheets: [sheet('8')],
    missing: [
      { employee: 'E2', name: 'Ben Birch', by: 'Cal Dorn', reminded: { user: 'Cal Dorn', at: '2031-04-28T07:30:00.000Z' } },
      { employee: 'E3', name: 'Dee Elm', by: null, reminded: null },
    ],
    earlier: [sheet('7', { week: '2031-04-14' })],
  };
  const { asked, sent, address } = openPage(WeekRegisterPage, '/', '/?on=2031-04-23', {
    weekRegister: register,
    remindMissing: { reminded: ['Cal Dorn'], nobody: ['Dee Elm'] },
  });
  expect((await screen.findByRole('region', { name: 'Not handed in' })).textContent).toContain(
    'Ben Birch Cal Dorn reminded 28 Apr',
  );
  fireEvent.click(screen.getByRole('button', { name: 'Remind Cal Dorn' }));
  await waitFor(() => expect(sent('remindMissing')).toEqual([{ on: '2031-04-21' }]));
  expect(screen.getByText('21 Apr 2031 to 27 Apr 2031')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'The week before' }));
  await waitFor(() => expect(address()).toBe('/?on=2031-04-14'));
  await waitFor(() => expect(asked.map((it) => it.query.on)).toContain('2031-04-14'));
});

test('new hours are entered, approved and posted in one act as they were previewed, by whoever may do all three', async () => {
  const { sent, asked, address } = openPage(NewWeekSheetPage, '/new', '/new?on=2031-04-23', {
    timeLists: {
      ...LISTS,
      jobs: [{ number: 'J1', name: 'Mill', sections: [], workKind: '' }],
      costCodes: [{ code: '100', description: 'Decks' }],
    },
    weekRegister: { week: '2031-04-21', sheets: [], missing: [], earlier: [] },
    hoursOfWeek: { hours: [] },
    taskHours: { tasks: [] },
    timeRemarks: [],
    previewHours: PREVIEW,
    postHours: { sheet: '12', entries: 6, total: 119_000 },
  });
  await put('Employee', 1, 'ann ash');
  await put('Job', 1, 'J1');
  await put('Code', 1, '100');
  await put('Tue 22 Apr', 1, '8:30');
  const look = screen.getByRole<HTMLButtonElement>('button', { name: 'Preview, to approve and post it now' });
  await waitFor(() => expect(look.disabled).toBe(false));
  fireEvent.click(look);
  // Pay 980.00 and burden 210.00.
  const post = await screen.findByRole('button', { name: 'Approve and post 6 lines, 1,190.00' });
  const hours = { employee: 'E1', dated: '2031-04-22', job: 'J1', costCode: '100', hours: 85_000 };
  const body = { week: '2031-04-21', lateOn: null, lines: [expect.objectContaining(hours)] };
  expect(asked.filter((it) => it.call === 'previewHours').map((it) => it.body)).toEqual([{ ...body, asOf: '2031-04' }]);
  fireEvent.click(post);
  await waitFor(() => expect(sent('postHours')).toEqual([{ ...body, seen: 'p' }]));
  await waitFor(() => expect(address()).toContain('/costs/time/sheets/12'));
});

test('the first hours need nothing but a name and what an hour costs, and a code is added where it is typed', async () => {
  const { sent } = openPage(NewWeekSheetPage, '/new', '/new?on=2031-04-23', {
    timeLists: { ...LISTS, employees: [] },
    weekRegister: { week: '2031-04-21', sheets: [], missing: [], earlier: [] },
    addEmployee: {},
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Add employee' }));
  expect(await screen.findByText('Enter the name')).toBeTruthy();
  type('Name', 'Ann Ash');
  type('Short code', 'AA');
  type('Costs an hour', '22.50');
  fireEvent.click(screen.getByRole('button', { name: 'Add employee' }));
  await waitFor(() => expect(sent('addEmployee')).toEqual([{ employee: 'AA', name: 'Ann Ash', costsAnHour: 225_000 }]));
});

test('whoever decides sees what each line will cost and what is left of its task, and own time is marked', async () => {
  openSheet(view(line(1), line(2, { employee: 'E2', dated: '2031-04-22' })), {
    timeLists: {
      ...LISTS,
      employees: [...LISTS.employees, { employee: 'E2', name: 'Ines Tolland', wageClass: '', startsOn: null, endsOn: null }],
    },
    weekCost: {
      posted: 0,
      toCome: 41_000,
      unpriced: 0,
      lines: [
        { id: 1, cost: 21_000 },
        { id: 2, cost: 20_000 },
      ],
    },
    taskHours: {
      tasks: [
        {
          job: 'J1',
          section: '',
          costCode: '100',
          description: '',
          budgeted: 1_000_000,
          used: 900_000,
          waiting: [{ sheet: '8', hours: 160_000 }],
        },
      ],
    },
  });
  const row = (await screen.findByText('210.00')).closest('tr')!;
  // Of 100 hours 90 are used and 16 wait.
  await waitFor(() => expect(row.textContent).toContain('−6 of 100'));
  expect(screen.getByText('own time').closest('td')?.textContent).toBe('Ines Tolland own time');
  expect(row.textContent).not.toContain('own time');
  expect(screen.getByText('410.00')).toBeTruthy();
});

test('the week of a person is read day by day, wherever the hours stand, and hours are added to it', async () => {
  const there = {
    sheet: '1',
    employee: 'E1',
    dated: '2031-04-21',
    pay: 'overtime' as const,
    hours: 15_000,
    posted: true,
    hasUnits: false,
    job: 'J1',
    section: '',
    costCode: '100',
  };
  const { sent } = openPage(PersonWeekPage, '/p', '/p?on=2031-04-23', {
    timeLists: {
      ...LISTS,
      me: 'E1',
      jobs: [{ number: 'J1', name: 'Mill', sections: [], workKind: 'ROPE' }],
      costCodes: [{ code: '100', description: 'Decks' }],
      workKinds: [{ workKind: 'ROPE', description: 'From ropes' }],
      rules: [{ from: '2031-01-01', dailyAfter: null, doubleAfter: null, weeklyAfter: null, weekStarts: 'monday' }],
    },
    hoursOfWeek: { hours: [there, { ...there, sheet: '2', dated: '2031-04-22', job: null, posted: false, pay: null }] },
    addSheet: { sheet: '3' },
  });
  expect((await screen.findByText(/J1 · 100/)).textContent).toContain('overtime, posted, sheet 1');
  expect(screen.getByText(/another job/).textContent).toContain('waiting, sheet 2');
  type('Wed 23 Apr', '8:30');
  await choose('Job', /J1/);
  fireEvent.click(screen.getByRole('button', { name: 'Submit hours' }));
  expect(await screen.findByText('Time on a job needs its cost code')).toBeTruthy();
  await choose('Cost code', /100/);
  fireEvent.click(screen.getByRole('button', { name: 'Submit hours' }));
  const line = { employee: 'E1', dated: '2031-04-23', job: 'J1', costCode: '100', workKind: 'ROPE', hours: 85_000 };
  await waitFor(() => expect(sent('addSheet')).toEqual([{ week: '2031-04-21', lines: [expect.objectContaining(line)] }]));
});

test('where the site says otherwise, the sheet shows it row by row, to be taken while it is decided on', async () => {
  const of = { section: '', costCode: '100', workKind: '', pay: null };
  const day: DaySheetView = {
    job: 'J1',
    jobName: 'Mill',
    dated: '2031-04-21',
    crew: 'Ann Ash',
    seen: 's',
    leftOut: '',
    weekSheet: '8',
    differs: true,
    differences: [{ ...of, employee: 'E1', site: 90_000, office: 80_000, fixed: null }],
    writtenBy: 'Ann Ash',
    writtenAt: '2031-04-21T15:00:00.000Z',
    arrived: [],
    weekHours: [],
    day: EMPTY_DAY,
  };
  const { sent } = openSheet(view(line(1)), {
    daysOfWeekSheet: [
      { job: 'J1', dated: '2031-04-21', crew: 'Ann Ash', differs: true },
      { job: 'J1', dated: '2031-04-22', crew: 'Ann Ash', differs: false },
    ],
    daySheet: day,
    takeDayHours: {},
  });
  const differs = await screen.findByRole('region', { name: 'The site says otherwise: 21 Apr 2031, job J1, crew of Ann Ash' });
  expect(differs.textContent).toContain('Ann Ash10098');
  fireEvent.click(screen.getByRole('button', { name: 'Take the site’s hours, 1 row' }));
  await waitFor(() => expect(sent('takeDayHours')).toEqual([{ seen: 's', rows: [JSON.stringify(['E1', '', '100', '', null])] }]));
});
