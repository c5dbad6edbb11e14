import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { hasRight, ROLES, seesAllJobs, type Role } from '../../core/rights/rights';
import { addressOf, hrefOf, type Call } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import type { Database } from '../db/database';
import { cleanUp, savingNothing, faultsOf, temporaryDatabase, LABOUR_BOOK } from '../test/books';
import { EXAMPLES } from '../test/postedBodies';
import { READS } from '../test/readArgs';
import { testApp } from '../test/testApp';
import { JobTable } from '../jobs/models';

/** Somebody of a role who is on the team of J1 and not of J2; nobody at all is null. */
type Who = Role | null;
const PEOPLE: readonly Who[] = [...ROLES, null];
const NAME = 'Ann Ash';

let database: Database;
let apps: Map<Who, ReturnType<typeof testApp>>;
const logged: unknown[] = [];

beforeAll(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, LABOUR_BOOK)).toEqual([]);
  await database.write(async (sql) => {
    await sql.update(JobTable, { number: 'J1' }, { name: 'OWNJOB', manager: NAME });
    await sql.update(JobTable, { number: 'J2' }, { name: 'OTHERJOB', manager: 'Somebody else' });
  });
  const person = (role: Role) => ({
    id: 1,
    name: NAME,
    email: 'a@x.example',
    role,
    allJobs: false,
    session: 1,
    secondFactor: false,
  });
  apps = new Map(PEOPLE.map((who) => [who, testApp(database, logged, { whoIs: () => Promise.resolve(who && person(who)) })]));
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

const appOf = (who: Who) => apps.get(who)!;
const may = (who: Who, call: Call, args: Readonly<Record<string, unknown>>) =>
  [call.who, ...(call.also ? [call.also(args)] : [])].every((right) => hasRight(who && { role: who }, right));
const refusedAs = (who: Who) => (who === null ? [401, 'signed-out'] : [403, 'not-allowed']);
const ofTeam = (who: Who) => who !== null && !seesAllJobs({ role: who, allJobs: false });

describe.each(PEOPLE)('as %s', (who) => {
  test.each(Object.entries(READS))('%s is read, or refused without a word of it', async (name, given) => {
    const call: Call = CALLS[name as keyof typeof READS];
    const args = given as Record<string, unknown>;
    const reply = await request(appOf(who)).get(hrefOf(call, args as never));
    if (!may(who, call, args)) {
      expect([reply.status, reply.body.code, Object.keys(reply.body)]).toEqual([
        ...refusedAs(who),
        ['code', 'message', 'faults', 'more'],
      ]);
      return;
    }
    // Of the team of J1 alone: J2 is not there for them, neither by its number nor in a list.
    expect(reply.status).toBe(ofTeam(who) && args.job === 'J2' ? 404 : 200);
    if (ofTeam(who)) expect(JSON.stringify(reply.body) + (reply.text ?? '')).not.toMatch(/OTHERJOB/);
    // For those who see every job, the list has it.
    else if (name === 'jobList') expect(JSON.stringify(reply.body)).toMatch(/OTHERJOB/);
    if (args.job === 'J1' && call.path.includes(':job')) {
      const other = await request(appOf(who)).get(hrefOf(call, { ...args, job: 'J2' } as never));
      if (ofTeam(who)) expect([other.status, other.body.code]).toEqual([404, 'not-found']);
      else expect([401, 403]).not.toContain(other.status);
    }
  });

  test('every command is carried out or refused as the table says, on an own job and on another', async () => {
    for (const [name, given] of Object.entries(EXAMPLES)) {
      const call: Call = CALLS[name as keyof typeof EXAMPLES];
      const { body, ...args } = given as unknown as { body: object; job?: string };
      const send = (job: string | undefined) => {
        const path = `/api${addressOf(call, { ...args, ...(job === undefined ? {} : { job }) })}`;
        const asked = request(appOf(who));
        return (call.method === 'PUT' ? asked.put(path) : asked.post(path)).send(body);
      };
      for (const job of args.job === undefined ? [undefined] : ['J1', 'J2']) {
        const allowed = may(who, call, args);
        const reply = await (allowed ? send(job) : savingNothing(database, () => send(job)));
        const seen = [name, job, reply.status];
        if (!allowed) expect([...seen, reply.body.code]).toEqual([name, job, ...refusedAs(who)]);
        else if (ofTeam(who) && job === 'J2') expect(seen).toEqual([name, job, 404]);
        // What is said no to by the rules of the books is allowed all the same; guesses of a password are a matter of their own.
        else if (!['signIn', 'demoSignIn', 'makeOwner', 'changePassword', 'beginSecondFactor', 'endSecondFactor'].includes(name))
          expect([401, 403, 500]).not.toContain(reply.status);
      }
    }
  });
});

test('whoever is of a team changes nothing but on a job that is looked up first', () => {
  const OF_NO_JOB = [
    ...['createJob', 'deleteDraft', 'saveJobTemplate', 'removeJobTemplate', 'saveCheckTemplate'],
    ...[
      'readSheet',
      'signOut',
      'changePassword',
      'beginSecondFactor',
      'confirmSecondFactor',
      'endSecondFactor',
      'endSession',
      'signIn',
      'demoSignIn',
      'makeOwner',
      'acceptInvitation',
    ],
    ...['decideApproval', 'withdrawApproval', 'acknowledgeApproval', 'addAbsence', 'endAbsence'],
    ...['addSheet', 'saveSheet', 'approveTime', 'returnTime', 'timeRemarks', 'remindMissing'],
    ...['askAboutOffer', 'acceptOffer', 'declineOffer'],
  ];
  const changing = Object.entries(CALLS as Record<string, Call>).filter(
    ([, call]) =>
      !['query', 'download'].includes(call.kind) &&
      (hasRight({ role: 'manager' }, call.who) || hasRight({ role: 'site' }, call.who)),
  );
  expect(
    changing
      .filter(([, call]) => !call.path.includes(':job'))
      .map(([name]) => name)
      .sort(),
  ).toEqual(OF_NO_JOB.sort());
});

test('the site reads no number but hours: no money can be among it', async () => {
  const numbers = (value: unknown): boolean =>
    typeof value === 'number' || (typeof value === 'object' && value !== null && Object.values(value).some(numbers));
  for (const path of ['/api/site/jobs', '/api/site/jobs/J1']) {
    const { hours = [], ...body } = (await request(appOf('site')).get(path).expect(200)).body as Record<string, unknown>;
    expect(numbers(body)).toBe(false);
    // Hours by task are numbers, and nothing else is among them.
    for (const it of hours as object[])
      expect(Object.keys(it)).toEqual(['section', 'costCode', 'description', 'budgeted', 'used', 'toFinish']);
  }
  // Time is entered there as well: hours, and no word of what they cost.
  const days = ['/api/phone-pack', '/api/day-sheets?on=2031-03-05', '/api/day-sheets/J1/2031-03-03/Ann%20Ash'];
  const weeks = ['/api/time-lists', '/api/week-sheets?on=2031-03-05', '/api/week-sheets/7', '/api/week-hours?on=2031-03-05'];
  for (const path of [...weeks, ...days])
    expect((await request(appOf('site')).get(path).expect(200)).text).not.toMatch(/"(rate|amount|payAmount|burden|cost|price)"/);
});
