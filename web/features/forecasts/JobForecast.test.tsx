/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { ForecastLine, ForecastView } from '../../../wire/forecasts';
import { forecastLine } from '../../test/costLines';
import { openPage, type Replies } from '../../test/openPage';
import { cell, put, type } from '../../test/typing';
import { JobForecast } from './JobForecast';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const line = (costCode: string, more: Partial<ForecastLine> = {}) => forecastLine({ id: Number(costCode), costCode, ...more });
const view = (more: Partial<ForecastView> = {}): ForecastView => ({
  seen: 'as read',
  on: '2031-04-30',
  contractSum: 3_000_000,
  contractSumLastMonth: 2_500_000,
  closed: null,
  finished: false,
  lines: [line('100'), line('200')],
  ...more,
});
const open = (of: ForecastView, more: Replies = {}) =>
  openPage(() => <JobForecast job="J1" looked={null} />, '/', '/?as-of=2031-04', { forecast: of, ...more });

test('what is said of a line is worked at once, with last month and margin beside it, and saved with what was read', async () => {
  const { sent } = open(view(), { saveForecast: {} } as Replies);
  await cell('% done', 1);
  const outcome = () => screen.getByRole('status').textContent;
  // Two lines at their budget of 10,000.00: (30,000 - 20,000) / 30,000 is 33.3 %; of 25,000.00 a month ago, 20.0 %.
  expect(outcome()).toBe('Estimate at completion, GBP 20,000.00margin  33.3 %31 Mar 2031: 20,000.00, 20.0 %');
  await put('% done', 1, '80');
  // 4,000.00 at 80 % are 5,000.00; with the other 15,000.00, which is half of the contract sum.
  expect(outcome()).toContain('15,000.00margin  50.0 %');
  // Of three ways to say it the one typed last counts.
  await put('Cost to complete', 1, '2000');
  expect((await cell('% done', 1)).value).toBe('');
  expect(outcome()).toContain('16,000.00margin  46.7 %');
  await put('Note', 1, 'Second fix late');
  fireEvent.click(screen.getByRole('button', { name: 'Save forecast' }));
  const said = {
    section: 'A',
    costCode: '100',
    costType: 'labour',
    method: 'to-complete',
    value: 200_000,
    note: 'Second fix late',
  };
  await waitFor(() => expect(sent('saveForecast')).toEqual([{ seen: 'as read', on: '2031-04-30', lines: [said] }]));
});

test('what cannot be read stays in its cell and is not saved; what somebody else saved meanwhile is said, and nothing is lost', async () => {
  open(view(), { saveForecast: { status: 409, body: { message: 'Jo Ward saved this forecast since you opened it' } } });
  await put('% done', 2, '120');
  expect((await cell('% done', 2)).getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save forecast' }).disabled).toBe(true);
  await put('% done', 2, '40');
  fireEvent.click(screen.getByRole('button', { name: 'Save forecast' }));
  expect((await screen.findByRole('alert')).textContent).toContain('Jo Ward saved this forecast since you opened it');
  expect((await cell('% done', 2)).value).toMatch(/^40/);
});

test('an earlier forecast stands under the pointer; on a closed job it is read, and a job without lines says so', async () => {
  const before = { method: 'hours' as const, value: 1_205_000, on: '2031-03-31', note: '' };
  const { unmount } = open(view({ closed: 'Job J1 is closed', lines: [line('100', { before })] }));
  expect(await screen.findByText('Job J1 is closed.')).toBeDefined();
  expect(screen.getByTitle('A · 100 Decks · labour. Earlier forecast: 120.5 h to go, 31 Mar 2031')).toBeDefined();
  expect([screen.queryByRole('button', { name: 'Saved' }), screen.queryByLabelText('% done, row 1')]).toEqual([null, null]);
  unmount();
  open(view({ lines: [] }));
  expect(await screen.findByText('No budget and no cost to forecast from yet')).toBeDefined();
});

test('one figure for the whole job is spread over the lines, says so, and leaves a line its own; what cannot be is said', async () => {
  const { sent } = open(view(), { saveForecast: {} } as Replies);
  await put('Cost to complete', 2, '1000');
  fireEvent.click(screen.getByRole('button', { name: 'Whole job in one figure …' }));
  await screen.findByLabelText('Amount');
  type('Amount', '8500');
  fireEvent.click(await screen.findByRole('button', { name: 'Spread over the lines' }));
  // 4,000.00 are spent on each and 1,000.00 are to come on the second: nothing below 9,000.00 is possible.
  expect(await screen.findByText(/leaves −500.00 to complete/)).toBeDefined();
  type('Amount', '12,000');
  fireEvent.click(screen.getByRole('button', { name: 'Spread over the lines' }));
  await waitFor(async () => expect((await cell('Cost to complete', 1)).value).toBe('3,000.00'));
  expect((await cell('Cost to complete', 2)).value).toBe('1,000.00');
  fireEvent.click(screen.getByRole('button', { name: 'Save forecast' }));
  const note = 'Spread over the lines: estimate at completion of the whole job 12,000.00';
  await waitFor(() =>
    expect(sent('saveForecast')).toMatchObject([
      {
        lines: [
          { costCode: '100', method: 'to-complete', value: 300_000, note },
          { costCode: '200', value: 100_000, note: '' },
        ],
      },
    ]),
  );
});

test('what is typed stays in the browser until it is saved, meets what somebody else saved, and can be given up', async () => {
  const { unmount } = open(view());
  await put('% done', 1, '80');
  unmount();
  // Meanwhile somebody said of the second line what is to come, and a line came before both.
  const entered = { method: 'to-complete' as const, value: 300_000, note: 'by Jo' };
  const later = view({ seen: 'by Jo', lines: [line('50'), line('100'), line('200', { entered })] });
  const { sent } = open(later, { saveForecast: {} } as Replies);
  expect((await cell('% done', 2)).value).toMatch(/^80/);
  expect((await cell('Cost to complete', 3)).value).toBe('3,000.00');
  fireEvent.click(screen.getByRole('button', { name: 'Save forecast' }));
  await waitFor(() =>
    expect(sent('saveForecast')).toMatchObject([
      { seen: 'by Jo', lines: [{ costCode: '100', value: 800_000 }, { costCode: '200' }] },
    ]),
  );
  cleanup();
  localStorage.clear();
  // The same typed on another line is no less typed.
  open(view({ lines: [line('100', { entered }), line('200')] }));
  await put('Cost to complete', 1, '');
  await put('Note', 1, '');
  await put('Cost to complete', 2, '3000');
  await put('Note', 2, 'by Jo');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save forecast' }).disabled).toBe(false);
  fireEvent.click(screen.getByRole('button', { name: 'Discard what was typed' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Discard what was typed permanently?' }));
  await waitFor(async () => expect((await cell('Cost to complete', 1)).value).toBe('3,000.00'));
  expect(screen.getByRole('button', { name: 'Saved' })).toBeDefined();
});
