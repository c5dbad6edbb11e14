/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { AuditRow } from '../../../wire/audit';
import { openPage, type Asked } from '../../test/openPage';
import { choose } from '../../test/typing';
import { AuditPage } from './AuditPage';
import { EMPTY_LISTS } from '../../test/emptyLists';

afterEach(cleanup);

const row = (id: number, command: string, subject: string, detail: unknown = {}): AuditRow => ({
  id,
  at: '2031-04-26T10:05:00Z',
  actor: 'Ines Tolland',
  command,
  subject,
  detail,
});
const LISTS = {
  ...EMPTY_LISTS,
  jobs: [{ number: '2104', name: 'Mill', status: 'on-site', locked: false, sections: [] }],
};
const open = (address: string, rows: readonly AuditRow[], next: number | null = null) =>
  openPage(AuditPage, '/ledger/audit-trail', address, {
    audit: ({ query }: Asked) => ({
      rows: query.before ? [row(1, 'create-job', '2104')] : [...rows],
      people: ['Ines Tolland', 'Jo Ward'],
      next: query.before ? null : next,
    }),
    lists: LISTS,
  });
const asked = (page: ReturnType<typeof open>) => page.asked.filter((it) => it.call === 'audit').at(-1)?.query;

test('who did what, when, and what was before; a posting leads to its document', async () => {
  const name = { was: { name: 'Mill', site: 'Weir' }, now: { name: 'Mill roof', site: 'Weir' } };
  open('/ledger/audit-trail', [row(8, 'save-job-facts', '2104', name), row(7, 'post-costs', 'posting 12', { lines: 3 })]);
  const table = await screen.findByRole('table', { name: 'Audit trail' });
  const [, first, second] = within(table).getAllByRole('row');
  // What stayed as it was is not among the details.
  expect(first?.textContent).toMatch(/^26 Apr 2031.*Ines TollandJob details saved2104.*Mill → Mill roof$/);
  expect(second?.textContent).toContain('Costs posted');
  expect(within(table).getByRole('link', { name: 'document 12' }).getAttribute('href')).toBe('/ledger/postings/12');
});

test('the history of one document is what its link asks for, and goes on to all of them; by job, person and kind of document', async () => {
  const page = open('/ledger/audit-trail?subject=2104%2F3&about=application&as-of=2031-04', [
    row(8, 'certify-application', '2104/3'),
  ]);
  fireEvent.click(await screen.findByRole('button', { name: 'Only 2104/3: show all' }));
  await waitFor(() => expect(asked(page)).toEqual({ about: 'application' }));
  expect(page.asked.find((it) => it.call === 'audit')?.query).toEqual({ subject: '2104/3', about: 'application' });
  await choose('Job', '2104 Mill');
  await choose('Person', 'Jo Ward');
  await waitFor(() => expect(asked(page)).toEqual({ about: 'application', job: '2104', actor: 'Jo Ward' }));
  expect(page.address()).toContain('as-of=2031-04');
  expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toBe(
    '/api/audit.csv?job=2104&about=application&actor=Jo+Ward',
  );
});

test('older lines come a page at a time, and newer ones are found again', async () => {
  const page = open('/ledger/audit-trail', [row(8, 'save-company', 'Brackenfell')], 8);
  fireEvent.click(await screen.findByRole('button', { name: 'Older' }));
  expect(await screen.findByText('Job set up')).toBeDefined();
  expect([asked(page), screen.queryByRole('button', { name: 'Older' })]).toEqual([{ before: '8' }, null]);
  fireEvent.click(screen.getByRole('button', { name: 'Newer' }));
  expect(await screen.findByText('Company saved')).toBeDefined();
});
