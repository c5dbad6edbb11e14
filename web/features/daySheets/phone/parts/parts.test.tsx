/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { EMPTY_DAY, type DayHours, type DaySheet } from '../../../../../core/daySheets/daySheet';
import type { Fault } from '../../../../../core/errors/ledrinError';
import type { PhonePack } from '../../../../../wire/daySheets';
import { phoneSheetOf, type PhoneSheet } from '../phoneStore';
import type { Phone } from '../Phone';
import { ChargedPart } from './ChargedPart';
import { HoursPart } from './HoursPart';
import { MetPart } from './MetPart';
import { RowsPart } from './RowsPart';
import { NumberBox } from './touch';

afterEach(cleanup);

const employee = (code: string, name: string, endsOn: string | null = null) => ({
  employee: code,
  name,
  wageClass: '',
  startsOn: null,
  endsOn,
});
const task = (costCode: string, description: string) => ({
  section: 'Roof',
  costCode,
  description,
  unit: 'm2',
  budgeted: 4_000_000,
  used: 1_000_000,
});
const PACK: PhonePack = {
  name: 'Ann Ash',
  today: '2031-03-04',
  workKinds: [],
  usualHours: 80_000,
  reminders: [],
  sheets: [],
  employees: [employee('E1', 'Ann Ash'), employee('E2', 'Ben Birch'), employee('E3', 'Cy Cole', '2031-02-28')],
  costCodes: [{ code: '100', description: 'Deck' }],
  jobs: [
    {
      number: 'J1',
      name: 'Mill',
      site: '',
      sections: ['Roof'],
      workKind: '',
      crew: ['E1', 'E2', 'E3'],
      tasks: [task('100', 'Deck'), task('200', 'Membrane')],
    },
  ],
};
const KEY = { owner: 'Ann Ash', job: 'J1', dated: '2031-03-04', crew: 'Ann Ash' };
const hours = (code: string, of: number, more: Partial<DayHours> = {}): DayHours => ({
  employee: code,
  section: 'Roof',
  costCode: '100',
  workKind: '',
  pay: null,
  hours: of * 10_000,
  description: '',
  charged: false,
  signature: 0,
  ...more,
});

function sheetOf(day: DaySheet): PhoneSheet {
  const view = { ...KEY, jobName: 'Mill', seen: 's', day, leftOut: '', writtenBy: 'the office', writtenAt: '', weekSheet: '' };
  return phoneSheetOf('Ann Ash', { ...view, weekHours: [], differs: false, differences: [], arrived: [] });
}

/** Shows a part of a sheet that is changed as the page changes it; gives back the sheet as it is now, and what the phone saved. */
function openPart(start: Partial<DaySheet>, part: 'hours' | 'deliveries' | 'charged', faults: Fault[] = []) {
  const now = { day: { ...EMPTY_DAY, ...start } };
  const phone = { owner: 'Ann Ash', pack: PACK, sheets: [], connected: true } as unknown as Phone;
  function Sheet() {
    const [day, setDay] = useState(now.day);
    now.day = day;
    const shared = {
      day,
      phone,
      job: PACK.jobs[0],
      sheet: sheetOf(day),
      dated: KEY.dated,
      change: (more: Partial<DaySheet>) => setDay({ ...day, ...more }),
      faultsAt: (of: string) => faults.filter((it) => it.field.startsWith(`day.${of}`)),
    };
    if (part === 'hours') return <HoursPart {...shared} />;
    return part === 'charged' ? <ChargedPart {...shared} /> : <RowsPart {...shared} part="deliveries" />;
  }
  render(<Sheet />);
  return now;
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

test("a crew's code takes two touches: a task, and the hours of a usual day for all of them", () => {
  const now = openPart({}, 'hours');
  // Cy Cole has left before this day: he is neither in the crew nor offered.
  expect(screen.getByText('Ann Ash, Ben Birch')).toBeTruthy();
  press(/^Roof · Deck/);
  press('8 h for all 2 people');
  expect(now.day.hours).toEqual([hours('E1', 8), hours('E2', 8)]);
  // What is left of the day is offered next: nobody has any, so it is an hour.
  press(/^Roof · Membrane/);
  expect(screen.getByRole('button', { name: '1 h for all 2 people' })).toBeTruthy();
});

test('hours of one person are changed by half hours, marked to be charged, and removed; what is signed is not', () => {
  const signed = hours('E2', 2, { charged: true, signature: 1 });
  const now = openPart({ hours: [hours('E1', 8), signed] }, 'hours', [
    { field: 'day.hours.0.hours', message: 'a day has 24 hours' },
  ]);
  expect(screen.getByRole('alert').textContent).toBe('a day has 24 hours');
  press('Hours of Ann Ash, more');
  press('Ann Ash');
  press('To be charged to the client');
  expect(now.day.hours[0]).toEqual(hours('E1', 8.5, { charged: true }));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Hours of Ben Birch, less' }).disabled).toBe(true);
  press('Remove');
  expect(now.day.hours).toEqual([signed]);
});

test('a number takes figures alone, with a comma or a point, and stays as it is typed', () => {
  const said: number[] = [];
  render(<NumberBox label="Quantity" value={0} labelled onValue={(it) => said.push(it)} />);
  const box = screen.getByRole<HTMLInputElement>('textbox', { name: 'Quantity' });
  for (const typed of ['12,5', 'abc', '7 m2', '']) fireEvent.change(box, { target: { value: typed } });
  expect(said).toEqual([125_000, 0, 70_000, 0]);
  fireEvent.change(box, { target: { value: '3.' } });
  expect(box.value).toBe('3.');
});

test('a delivery is a row with its number; a row is removed by itself', () => {
  const now = openPart({}, 'deliveries');
  press('Add a delivery');
  press('Add a delivery');
  const [first] = screen.getAllByRole('group');
  fireEvent.change(within(first!).getByRole('textbox', { name: 'From' }), { target: { value: 'Slatewright' } });
  fireEvent.change(within(first!).getByRole('textbox', { name: 'Number of the delivery note' }), { target: { value: 'SW 88' } });
  fireEvent.click(within(screen.getAllByRole('group')[1]!).getByRole('button', { name: 'Remove' }));
  expect(now.day.deliveries).toEqual([
    { name: 'Slatewright', reference: 'SW 88', description: '', photo: '', charged: false, signature: 0 },
  ]);
});

test('the client signs once there is a name and a stroke, and what is signed stands under the signature', () => {
  const now = openPart({ hours: [hours('E1', 8, { charged: true }), hours('E2', 8)] }, 'charged');
  expect(screen.getByText('Ann Ash, Roof · Deck, 8 h')).toBeTruthy();
  press('Client signs');
  const sign = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Sign' });
  fireEvent.change(screen.getByRole('textbox', { name: 'Name' }), { target: { value: 'Mr Hale' } });
  expect(sign().disabled).toBe(true);
  const pad = screen.getByRole('img', { name: 'Sign here with a finger' });
  // 500 × 200 on the glass: a point at 50, 40 is at 100, 80 of the field.
  pad.getBoundingClientRect = () => ({ left: 0, top: 0, width: 500, height: 200 }) as DOMRect;
  (pad as unknown as { setPointerCapture: () => void }).setPointerCapture = () => {};
  fireEvent(pad, new MouseEvent('pointerdown', { bubbles: true, clientX: 50, clientY: 40 }));
  fireEvent(pad, new MouseEvent('pointermove', { bubbles: true, clientX: 60, clientY: 50 }));
  fireEvent(pad, new MouseEvent('pointerup', { bubbles: true }));
  fireEvent(pad, new MouseEvent('pointermove', { bubbles: true, clientX: 90, clientY: 90 }));
  fireEvent.click(sign());
  expect(now.day.signatures).toEqual([
    { number: 1, name: 'Mr Hale', office: '', signedOn: expect.stringMatching(/^20\d\d-/), strokes: '100,80 120,100' },
  ]);
  expect(now.day.hours.map((it) => it.signature)).toEqual([1, 0]);
  expect(screen.queryByRole('button', { name: 'Client signs' })).toBeNull();
});

test('of what both changed one is chosen each, and what is not taken goes along in words', async () => {
  const base = { ...EMPTY_DAY, weather: 'Dry', hours: [hours('E1', 8)] };
  const mine = { ...base, weather: 'Rain', hours: [hours('E1', 9)] };
  const theirs = sheetOf({ ...base, weather: 'Snow', hours: [hours('E1', 7)] }).view!;
  const clashes = [
    { part: 'weather' as const, mine: 'Rain', theirs: 'Snow' },
    { part: 'hours' as const, mine: { ...hours('E1', 9) }, theirs: { ...hours('E1', 7) } },
  ];
  const saved: PhoneSheet[] = [];
  const phone = { pack: PACK, save: async (it: PhoneSheet) => void saved.push(it), send: async () => {} } as unknown as Phone;
  render(<MetPart phone={phone} sheet={{ ...sheetOf(mine), met: { theirs, merged: theirs.day, clashes } }} />);
  const together = screen.getByRole<HTMLButtonElement>('button', { name: 'Send together' });
  press(/^Yours\s*Rain/);
  expect(together.disabled).toBe(true);
  press(/^The office\s*Ann Ash/);
  fireEvent.click(together);
  expect(saved[0]).toMatchObject({ met: null, toSend: true, day: { weather: 'Rain', hours: [hours('E1', 7)] } });
  expect(saved[0]!.leftOut).toBe('Weather, in the office: Snow\nHours, on the phone: Ann Ash, Roof · 100, 9 h');
});
