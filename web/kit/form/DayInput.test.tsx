/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { EntryGrid } from '../grid/EntryGrid';
import type { GridRow } from '../grid/gridTypes';
import { typedBy } from '../grid/rowCodecs';
import { day } from '../typed/codecs';
import { DayFilter, DayInput } from './DayInput';

afterEach(cleanup);

function Dated({ start }: { start: string }) {
  const [text, setText] = useState(start);
  return <DayInput aria-label="Awarded on" value={text} month="2031-04" onText={setText} />;
}
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
/** The calendar is fetched when it is first opened, which takes its time beside other tests. */
const PATIENT = { timeout: 15_000 };
const openCalendar = async () => {
  fireEvent.click(screen.getByRole('button', { name: 'Calendar' }));
  return within(await screen.findByRole('grid', { name: /20\d\d/ }, PATIENT));
};
/** A day of the calendar, found as it is read out: Thursday 17 April 2031, in the order of the locale. */
const dayOf = (calendar: ReturnType<typeof within>, day: number, month: string) =>
  calendar.getByRole('button', { name: new RegExp(`\\b${day} ${month}|${month} ${day}(st|nd|rd|th)\\b`) });

test('without a day the calendar opens at the month of the page; the day chosen is written into the field, which has the focus again', async () => {
  render(<Dated start="" />);
  const calendar = await openCalendar();
  fireEvent.click(dayOf(calendar, 17, 'April'));
  expect(field('Awarded on').value).toBe('17 Apr 2031');
  await waitFor(() => expect(document.activeElement).toBe(field('Awarded on')));
  expect(screen.queryByRole('grid', { name: /20\d\d/ })).toBeNull();
});

test('with a day typed in short it opens there; Esc leaves the field as it was', async () => {
  render(<Dated start="3/6" />);
  const calendar = await openCalendar();
  expect(dayOf(calendar, 3, 'June').closest('[data-selected]')).not.toBeNull();
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('grid', { name: /20\d\d/ })).toBeNull());
  expect(field('Awarded on').value).toBe('3/6');
});

test('a filter counts when a day is chosen, and is taken away by emptying it', async () => {
  const asked: string[] = [];
  function Filter() {
    const [day, setDay] = useState('2031-04-03');
    const take = (next: string) => {
      asked.push(next);
      setDay(next);
    };
    return <DayFilter label="From" day={day} month="2031-04" onDay={take} />;
  }
  render(<Filter />);
  const calendar = await openCalendar();
  fireEvent.click(dayOf(calendar, 10, 'April'));
  expect([field('From').value, asked]).toEqual(['10 Apr 2031', ['2031-04-10']]);
  fireEvent.change(field('From'), { target: { value: '' } });
  fireEvent.blur(field('From'));
  expect([field('From').value, asked]).toEqual(['', ['2031-04-10', '']]);
});

test('in a grid the calendar stands beside the cell one is in alone, and what is chosen is one step to undo', async () => {
  function Sheet() {
    const [rows, setRows] = useState<GridRow[]>([{ dated: '2 Apr 2031' }, { dated: '' }]);
    const columns = [{ key: 'dated', title: 'Date', width: 90, ...typedBy(day('2031-04')) }];
    return <EntryGrid label="Lines" columns={columns} rows={rows} onRows={setRows} faults={new Map()} />;
  }
  render(<Sheet />);
  expect(screen.queryByRole('button', { name: 'Calendar' })).toBeNull();
  act(() => field('Date, row 1').focus());
  const calendar = await openCalendar();
  fireEvent.click(dayOf(calendar, 25, 'April'));
  await waitFor(() => expect(document.activeElement).toBe(field('Date, row 1')));
  expect(field('Date, row 1').value).toBe('25 Apr 2031');
  fireEvent.keyDown(field('Date, row 1'), { key: 'z', ctrlKey: true });
  expect(field('Date, row 1').value).toBe('2 Apr 2031');
  act(() => field('Date, row 2').focus());
  expect(screen.getAllByRole('button', { name: 'Calendar' })).toHaveLength(1);
});
