/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { JobFileView } from '../../../wire/jobFile';
import type { JobView } from '../../../wire/jobs';
import { openPage } from '../../test/openPage';
import { choose } from '../../test/typing';
import { JobStatus } from './JobStatus';

afterEach(cleanup);

const LOCKED = { status: 409, body: { message: 'Job 2105 is locked' } };
const MISSING = { missing: [{ text: 'The budget is empty', to: { place: 'budget', job: '2105' } }] } as unknown as JobFileView;
const GIVEN = { moveJob: LOCKED, jobFile: MISSING, lockJob: {}, restrictJob: {}, deleteJob: {} };

function open(job: Partial<JobView>) {
  const awardedOn = job.status === 'tender' ? null : '2031-01-05';
  const view = {
    number: '2105',
    locked: false,
    restricted: false,
    awardedOn,
    finishedOn: null,
    holds: [],
    ...job,
  } as unknown as JobView;
  return openPage(() => <JobStatus job={view} />, '/', '/', GIVEN);
}
const press = async (name: RegExp | string) => fireEvent.click(await screen.findByRole('button', { name }));

test('an awarded job goes on without a day, warned of what is missing; a refusal says why where it was asked', async () => {
  const { sent } = open({ status: 'awarded' });
  await press('awarded');
  expect(screen.queryByRole('textbox', { name: /on$/ })).toBeNull();
  expect(await screen.findByRole('link', { name: 'The budget is empty' })).toBeDefined();
  await press('Move to on-site');
  expect((await screen.findByRole('alert')).textContent).toContain('is locked');
  expect(sent('moveJob')).toEqual([{ status: 'on-site', on: null, reason: '' }]);
});

test('a tender is awarded on a day: the last of the month to begin with, read before it is sent', async () => {
  const { sent } = open({ status: 'tender' });
  await press('tender');
  const day = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Awarded on' });
  expect(day.value).toBe('30 Apr 2031');
  fireEvent.change(day, { target: { value: '31/4' } });
  await press('Move to awarded');
  expect((await screen.findByRole('alert')).textContent).toContain('Enter a date');
  expect([day.value, sent('moveJob')]).toEqual(['31/4', []]);
  fireEvent.change(day, { target: { value: '7' } });
  await press('Move to awarded');
  await waitFor(() => expect(sent('moveJob')).toEqual([{ status: 'awarded', on: '2031-04-07', reason: '' }]));
});

test('a job is locked for a reason only, and a tender goes for good only after a second press', async () => {
  const { sent, address } = open({ status: 'tender' });
  await press('tender');
  const lock = await screen.findByRole<HTMLButtonElement>('button', { name: 'Lock' });
  expect(lock.disabled).toBe(true);
  fireEvent.change(screen.getByRole('textbox', { name: 'Reason for locking or restricting' }), {
    target: { value: 'In dispute' },
  });
  fireEvent.click(lock);
  await waitFor(() => expect(sent('lockJob')).toEqual([{ locked: true, reason: 'In dispute' }]));
  await press(/^tender/);
  fireEvent.change(await screen.findByRole('textbox', { name: /^Reason for locking/ }), { target: { value: 'A bank' } });
  await press('Restrict to its team');
  await waitFor(() => expect(sent('restrictJob')).toEqual([{ restricted: true, reason: 'A bank' }]));
  await press(/^tender/);
  await press('Delete job');
  expect(sent('deleteJob')).toEqual([]);
  await press('Delete job permanently?');
  await waitFor(() => expect(address()).toBe('/jobs'));
});

test('a job is cancelled with a reason, which is asked for before it is sent; one that is posted to is not', async () => {
  const { sent } = open({ status: 'awarded' });
  await press('awarded');
  await choose('Move the job on to', 'cancelled');
  await press('Move to cancelled');
  expect(await screen.findByText('Enter a reason: why the job is cancelled')).toBeDefined();
  expect(sent('moveJob')).toEqual([]);
  fireEvent.change(screen.getByRole('textbox', { name: 'Reason' }), { target: { value: 'The site is sold' } });
  await press('Move to cancelled');
  await waitFor(() => expect(sent('moveJob')).toEqual([{ status: 'cancelled', on: '2031-04-30', reason: 'The site is sold' }]));
  cleanup();
  open({ status: 'awarded', holds: ['postings'] });
  await press('awarded');
  await screen.findByRole('combobox', { name: 'Move the job on to' });
  expect(document.body.textContent).toContain('closing-out');
  expect(document.body.textContent).not.toContain('cancelled');
});
