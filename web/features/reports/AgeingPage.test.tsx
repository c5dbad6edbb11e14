/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { AGEING_FIGURE_NAMES, AGEING_FIGURES, type AgeingFigureName } from '../../../core/billing/ageingFigures';
import type { ReportReply } from '../../../wire/reports';
import { store } from '../../ground/api/store';
import { openPage } from '../../test/openPage';
import { AgeingPage } from './AgeingPage';

afterEach(cleanup);

type Row = ReportReply['rows'][number];
/** A row of the report; figures in pounds, the others nothing. */
function row(job: string, application: string, dueOn: string, figures: Partial<Record<AgeingFigureName, number>>): Row {
  const amounts = AGEING_FIGURE_NAMES.map((name) => [AGEING_FIGURES[name].column, Math.round((figures[name] ?? 0) * 100)]);
  return { customer: 'HOLLIN', job, application, dated: '2031-03-22', due_on: dueOn, ...Object.fromEntries(amounts) };
}
const COLUMNS = [
  ...(['customer:Client', 'job:Job', 'application:Application', 'dated:Dated', 'due_on:Due on'] as const).map((it) => {
    const [key = '', title = ''] = it.split(':');
    return { key, title, kind: 'text' as const };
  }),
  ...AGEING_FIGURE_NAMES.map((name) => ({
    key: AGEING_FIGURES[name].column,
    title: AGEING_FIGURES[name].title,
    kind: 'amount' as const,
  })),
];
const reply = (rows: Row[]): ReportReply => ({ name: 'ageing', title: '', columns: COLUMNS, rows, hasTotal: true });

const ROWS = [
  row('2108', '12', '2031-06-02', { notDue: 741.57, retentionHeld: 954.37, total: 1695.94 }),
  row('2108', '8', '2031-02-01', { days61To90: 348.32, total: 348.32 }),
  row('2108', 'RET-1', '2031-04-20', { days1To30: 50, total: 50 }),
];
const TOTAL = row('', '', '', { notDue: 741.57, days1To30: 50, days61To90: 348.32, retentionHeld: 954.37, total: 2094.26 });
const open = (rows: Row[]) => openPage(AgeingPage, '/reports/ageing', '/reports/ageing', { report: reply(rows) });
const rowOf = (text: string) => within(screen.getByText(text).closest('tr')!);

test('every figure stands under its head, with what is late and what is held marked, and the total in the foot', async () => {
  open([...ROWS, TOTAL]);
  await screen.findByText('2 Jun 2031');
  const heads = screen.getAllByRole('columnheader').map((it) => it.textContent?.replace(/[↑↓]/g, '').trim());
  expect(heads.slice(4)).toEqual(AGEING_FIGURE_NAMES.map((name) => AGEING_FIGURES[name].title));
  const cells = rowOf('2 Jun 2031')
    .getAllByRole('cell')
    .map((it) => it.textContent?.trim());
  expect(cells.slice(4)).toEqual(['741.57', '–', '–', '–', '–', 'held 954.37', '1,695.94']);
  expect(rowOf('2 Jun 2031').queryByTitle('overdue')).toBeNull();
  expect(rowOf('1 Feb 2031').getByTitle('overdue')).toBeDefined();
  expect(screen.getByText('Total, GBP (retention before tax)').closest('tr')?.textContent).toContain('2,094.26');
});

test('what a client owes in all stands over its invoices, by the name of the client', async () => {
  const clients = [{ code: 'HOLLIN', name: 'Hollin Construction', termsDays: 30 }];
  openPage(AgeingPage, '/reports/ageing', '/reports/ageing', { report: reply([...ROWS, TOTAL]), lists: { clients } as never });
  const client = await screen.findByRole('button', { name: /^Hollin Construction 3/ });
  // 741.57 + 50 + 348.32, and 954.37 held: 2,094.26.
  expect(client.closest('tr')?.textContent).toContain('2,094.26');
  fireEvent.click(client);
  expect(screen.queryByText('2 Jun 2031')).toBeNull();
});

test('a figure opens the workings of what explains it: the invoice, the release, the retention of the job', async () => {
  open([...ROWS, TOTAL]);
  await screen.findByText('2 Jun 2031');
  const opened = (day: string, figure: RegExp) => {
    fireEvent.click(rowOf(day).getByRole('button', { name: figure }));
    return store.getState().workings.trail;
  };
  expect(opened('2 Jun 2031', /741\.57/)).toEqual([{ figure: 'applicationOpen', job: '2108', application: 12 }]);
  expect(opened('2 Jun 2031', /954\.37/)).toEqual([{ figure: 'retentionHeld', job: '2108' }]);
  expect(opened('20 Apr 2031', /50\.00/)).toEqual([{ figure: 'releaseOpen', job: '2108', release: 'RET-1' }]);
});

test('nothing owed and nothing held is said in words', async () => {
  open([TOTAL]);
  expect(await screen.findByText('No unpaid invoices and no retention held.')).toBeDefined();
});
