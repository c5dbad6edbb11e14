import { expect, test } from '@jest/globals';
import {
  applicationDateRefusals,
  applicationRefusal,
  certifiedOnRefusals,
  startRefusals,
  type MovingApplication,
  type PlacedApplication,
} from './applicationRefusals';

const job = { number: 'J1', status: 'on-site', locked: false, sovLines: ['1'], awardedOn: '2031-02-01' };
const one: PlacedApplication = { number: 1, dated: '2031-03-31', status: 'certified', certifiedOn: '2031-04-10' };
const rules = (refusals: readonly { rule: string; at: string }[]) => refusals.map((it) => `${it.rule} ${it.at}`);

test('an application is started on a job that is billed, has a schedule, and waits for no other one', () => {
  expect(startRefusals(job, one)).toEqual([]);
  expect(rules(startRefusals({ ...job, sovLines: [] }, undefined))).toEqual(['application-without-schedule job']);
  expect(rules(startRefusals({ ...job, status: 'cancelled' }, one))).toEqual(['job-takes-none job']);
  expect(rules(startRefusals({ ...job, locked: true }, one))).toEqual(['job-takes-none job']);
  expect(rules(startRefusals(job, { ...one, status: 'submitted' }))).toEqual(['application-after-open number']);
});

test('its date comes after the award and after the one before it; equal days will do', () => {
  expect(applicationDateRefusals(job, '2031-03-31', one)).toEqual([]);
  expect(rules(applicationDateRefusals(job, '2031-01-31', one))).toEqual([
    'application-before-award dated',
    'application-out-of-order dated',
  ]);
});

test('it is certified after its own date, after the one before it, and has no such day while it is not', () => {
  const two = (certifiedOn: string | null, status: PlacedApplication['status'] = 'certified') =>
    rules(certifiedOnRefusals({ number: 2, dated: '2031-04-05', status, certifiedOn }, one));
  expect(two('2031-04-10')).toEqual([]);
  expect(two('2031-04-09')).toEqual(['certified-out-of-order certifiedOn']);
  expect(two('2031-04-04')).toEqual(['certified-before-dated certifiedOn', 'certified-out-of-order certifiedOn']);
  expect(two('2031-04-10', 'draft')).toEqual(['certified-on-uncertified certifiedOn']);
  expect(
    rules(
      certifiedOnRefusals({ ...one, number: 2, certifiedOn: '2031-04-10' }, { ...one, status: 'submitted', certifiedOn: null }),
    ),
  ).toEqual(['certified-before-previous status']);
});

test('billed in one act is a draft of a client who never certifies, with something on it, after the one before it', () => {
  const it: MovingApplication = {
    number: 2,
    status: 'draft',
    job,
    hasLines: true,
    invoice: null,
    previous: one,
    neverCertifies: true,
    after: null,
  };
  const rule = (more: Partial<MovingApplication>) => applicationRefusal('bill', { ...it, ...more })?.rule ?? null;
  expect(rule({})).toBeNull();
  expect(rule({ neverCertifies: false })).toBe('client-certifies');
  expect(rule({ hasLines: false })).toBe('application-empty');
  expect(rule({ previous: { ...one, status: 'submitted', certifiedOn: null } })).toBe('certified-before-previous');
  expect(rule({ status: 'submitted' })).toBe('not-in-this-state');
});
