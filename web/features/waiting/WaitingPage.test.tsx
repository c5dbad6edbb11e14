/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import { WAITING, type WaitingName } from '../../../core/waiting/waiting';
import type { WaitingRow } from '../../../wire/waiting';
import { openPage } from '../../test/openPage';
import { WaitingPage } from './WaitingPage';

afterEach(cleanup);

const kinds = Object.keys(WAITING) as WaitingName[];

test('every kind of document that can wait has a row that leads to it, the oldest first', async () => {
  const rows = kinds.map((kind, i): WaitingRow => ({
    kind,
    job: 'J1',
    jobName: 'Roof',
    document: String(i + 1),
    since: `2031-04-${28 - i}`,
  }));
  openPage(WaitingPage, '/', '/', { waiting: rows });
  const table = within(await screen.findByRole('table', { name: 'Waiting for you' }));
  const links = table.getAllByRole('link').map((it) => [it.textContent, it.getAttribute('href')?.split('?')[0]]);
  expect(links).toHaveLength(kinds.length);
  const named = rows.map((it) => WAITING[it.kind].named(it));
  expect(links.map(([text]) => text)).toEqual([...named].reverse());
  expect(links.every(([, href]) => href !== undefined && href.length > 1)).toBe(true);
});

test('where nothing waits, the page says so', async () => {
  openPage(WaitingPage, '/', '/', { waiting: [] });
  expect(await screen.findByText('Nothing waits for you')).toBeTruthy();
});
