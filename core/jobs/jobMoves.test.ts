import { expect, test } from '@jest/globals';
import { messageOf, showIn } from '../refusals/messages';
import { dayOfMove, daysAfter, moveRefusals, movesOpen, whyNotMoved, type JobMove, type MovingJob } from './jobMoves';
import { ALL_JOB_STATUSES } from './jobStatus';

const job = (more: Partial<MovingJob> = {}): MovingJob => ({
  number: '7',
  status: 'awarded',
  awardedOn: '2031-01-05',
  finishedOn: null,
  isPosted: false,
  ...more,
});
const tender = job({ status: 'tender', awardedOn: null });
const why = (of: MovingJob, move: Partial<JobMove>) =>
  moveRefusals(of, { status: 'on-site', on: null, reason: '', ...move }).map((it) => `${it.at}: ${messageOf(it, showIn(2))}`);

test('a job moves along its life with the days it needs, and to an end with a reason', () => {
  expect(why(job(), {})).toEqual([]);
  expect(why(tender, { status: 'awarded' })).toEqual(['on: Enter the day it was awarded']);
  expect(why(job(), { status: 'closed', on: '2031-01-04' })).toEqual([
    'on: Finished on 4 Jan 2031 is before the award, 5 Jan 2031',
  ]);
  expect(why(job(), { status: 'closed' })).toEqual(['on: Enter the day it was finished']);
  expect(why(job(), { status: 'cancelled' })).toEqual([
    'reason: Enter a reason: why the job is cancelled',
    'on: Enter the day it was cancelled',
  ]);
  expect(why(job({ status: 'cancelled' }), { status: 'awarded', reason: 'asked again' })).toEqual([]);
  expect(why(job({ status: 'closed', finishedOn: '2031-04-01' }), {})).toEqual([
    'status: Job 7 is closed; it moves on to nothing more',
  ]);
  // Awarded and finished at once it has one day for both.
  expect(daysAfter(tender, { status: 'closed', on: '2031-03-01', reason: '' })).toEqual({
    awardedOn: '2031-03-01',
    finishedOn: '2031-03-01',
  });
});

test('what is posted to keeps its award; closed books keep a job that counts in them', () => {
  expect(movesOpen(job(), null)).toEqual(['on-site', 'closing-out', 'closed', 'cancelled']);
  expect(movesOpen(job({ isPosted: true }), null)).not.toContain('cancelled');
  expect([movesOpen(job(), '2031-01-31'), movesOpen(job({ status: 'cancelled' }), '2031-01-31')]).toEqual([
    ['on-site', 'closing-out', 'closed'],
    [],
  ]);
  expect(whyNotMoved(job(), 'cancelled', '2031-01-04')).toBeNull();
});

test('every move that is open is taken once its day and its reason are given', () => {
  for (const status of ALL_JOB_STATUSES) {
    const awardedOn = ['tender', 'lost', 'withdrawn'].includes(status) ? null : '2031-01-05';
    const of = job({ status, awardedOn });
    for (const to of movesOpen(of, null)) {
      const on = dayOfMove(of, to) === null ? null : '2031-02-01';
      expect([status, to, moveRefusals(of, { status: to, on, reason: 'why' })]).toEqual([status, to, []]);
    }
  }
});
