/** @jest-environment ./web/test/pageEnvironment.js */
import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { openPage } from '../../test/openPage';
import { sheetLine, TIME_LISTS } from '../../test/timeSheets';
import { type } from '../../test/typing';
import { WeekRegisterPage } from './WeekRegisterPage';
import { NewWeekSheetPage, WeekSheetPage } from './WeekSheetPage';

const wide = window.innerWidth;
beforeAll(() => void Object.assign(window, { innerWidth: 390 }));
afterAll(() => void Object.assign(window, { innerWidth: wide }));
afterEach(cleanup);

const LISTS = {
  ...TIME_LISTS,
  jobs: [{ number: 'J1', name: 'Mill', sections: ['Core'], workKind: '' }],
  costCodes: [{ code: '100', description: 'Decks' }],
  me: 'E1',
};
const HOURS = { submitted: 80_000, returned: 0, approved: 0, posted: 0 };

test('on a phone a row is a card: what is proposed is taken at once, hours are typed, and the sheet is submitted', async () => {
  const { sent } = openPage(NewWeekSheetPage, '/new', '/new?on=2031-04-23', {
    timeLists: LISTS,
    weekRegister: { week: '2031-04-21', sheets: [], missing: [], earlier: [] },
    hoursOfWeek: { hours: [] },
    workedBefore: { tasks: [{ employee: 'E1', job: 'J1', section: 'Core', costCode: '100' }], teams: [] },
    taskHours: { tasks: [] },
    timeRemarks: [],
    addSheet: { sheet: '12' },
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Take E1' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Take J1 · Core · 100' }));
  type('Tue 22 Apr, row 1', '8:30');
  fireEvent.blur(screen.getByLabelText('Tue 22 Apr, row 1'));
  expect(screen.getByLabelText<HTMLInputElement>('Tue 22 Apr, row 1').value).toBe('8.5');
  fireEvent.click(screen.getByRole('button', { name: 'Add a row' }));
  type('Employee, row 2', 'E9');
  fireEvent.click(screen.getByRole('button', { name: 'Remove row 2' }));
  const submit = await screen.findByRole<HTMLButtonElement>('button', { name: 'Submit 1 line, 8.5 h' });
  await waitFor(() => expect(submit.disabled).toBe(false));
  fireEvent.click(submit);
  await waitFor(() =>
    expect(sent('addSheet')).toMatchObject([
      {
        week: '2031-04-21',
        lines: [{ employee: 'E1', job: 'J1', section: 'Core', costCode: '100', dated: '2031-04-22', hours: 85_000 }],
      },
    ]),
  );
});

test('sheets are listed, read and approved there as well', async () => {
  const { sent } = openPage(WeekSheetPage, '/s/:sheet', '/s/8', {
    timeLists: LISTS,
    weekSheet: {
      sheet: '8',
      seen: 'w',
      weeks: ['2031-04-21'],
      week: '2031-04-21',
      lines: [sheetLine(1, { section: 'Core' })],
      corrects: [],
      correctedBy: [],
    },
    hoursOfWeek: { hours: [] },
    taskHours: { tasks: [] },
    weekCost: { posted: 0, toCome: 30_000, unpriced: 0, lines: [{ id: 1, cost: 30_000 }] },
    timeRemarks: [],
    approveTime: {},
  });
  const card = (await screen.findByText('21 Apr: 8')).closest('li')!;
  await within(card).findByText('300.00');
  const tick = within(card).getByRole('checkbox', { name: 'Ann Ash, J1 · Core · 100' });
  fireEvent.click(tick);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /^Approve/ }).disabled).toBe(true);
  fireEvent.click(screen.getByRole('checkbox', { name: 'All lines that are not posted' }));
  fireEvent.click(screen.getByRole('button', { name: 'Approve 1 line, 8 h' }));
  await waitFor(() => expect(sent('approveTime')).toEqual([{ seen: 'w', lines: [1] }]));
  cleanup();
  openPage(WeekRegisterPage, '/', '/?on=2031-04-23', {
    weekRegister: {
      week: '2031-04-21',
      sheets: [{ sheet: '8', week: '2031-04-21', employees: ['Ann Ash'], hours: HOURS }],
      missing: [],
      earlier: [],
    },
  });
  const list = await screen.findByRole('list', { name: 'Sheets of the week' });
  expect(within(list).getByRole('link').textContent).toBe('Sheet 8Ann Ash8 h submitted');
});
