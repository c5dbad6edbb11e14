import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { seesAllJobs } from '../../core/rights/rights';
import { hrefOf, type Call } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import type { Database } from '../db/database';
import { belongings, ROWS_OF_NO_JOB } from '../db/narrow';
import { importBook } from '../book/importBook';
import { act } from '../test/act';
import { JobTable } from '../jobs/models';
import { JobPersonTable } from '../jobFile/models';
import { READS, type Reading } from '../test/readArgs';
import { besides, cleanUp, TESTER, temporaryDatabase } from '../test/books';
import { unzipped } from '../test/unzipped';
import { OWNER, testApp } from '../test/testApp';

/**
 * Whoever sees the jobs of a team reads the same of each of them as whoever sees all jobs: same rights, same books, and only the
 * jobs that can be seen differ. Run on the sample company, whose jobs have whatever a job may have.
 */
let database: Database;
const logged: unknown[] = [];
const MANAGER = { ...OWNER, id: 1, name: 'Team Lead', role: 'manager' as const };
const appOf = (allJobs: boolean) => testApp(database, logged, { whoIs: () => Promise.resolve({ ...MANAGER, allJobs }) });

let whole: ReturnType<typeof testApp>;
let team: ReturnType<typeof testApp>;
let jobs: { id: number; number: string }[];

const setTeam = (ids: readonly number[]) =>
  database.write(async (sql) => {
    await sql.remove(JobPersonTable, { name: MANAGER.name });
    const row = { side: 'team' as const, role: '', company: '', name: MANAGER.name, phone: '', email: '' };
    await sql.insertAll(
      JobPersonTable,
      ids.map((id, i) => ({ ...row, job_id: id, position: 900 + i })),
    );
  });

beforeAll(async () => {
  database = await temporaryDatabase();
  await act(database, TESTER, importBook, 'demo/book', besides(database));
  jobs = (await database.read((sql) => sql.find(JobTable, {}, ['id']))).map(({ id, number }) => ({ id, number }));
  [whole, team] = [appOf(true), appOf(false)];
});
afterAll(async () => {
  expect(logged).toEqual([]);
  await cleanUp();
});

/** What a call replies, as far as two replies can be compared: the text of a DOCX, and of other binary documents how long they are. */
async function replied(app: typeof whole, href: string): Promise<[number, string]> {
  const reply = await request(app)
    .get(href)
    .buffer()
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part)).on('end', () => done(null, Buffer.concat(parts)));
    });
  const [body, type] = [reply.body as Buffer, String(reply.headers['content-type'])];
  if (type.includes('wordprocessingml')) return [reply.status, unzipped(body)['word/document.xml']!.replace(/<[^>]*>/g, ' ')];
  return [reply.status, /json|csv|text/.test(type) ? body.toString() : `${body.length} bytes`];
}

async function differing(hrefs: readonly string[]): Promise<string[]> {
  const found: string[] = [];
  for (const href of hrefs) {
    const [all, own] = [await replied(whole, href), await replied(team, href)];
    if (all[0] !== own[0] || all[1] !== own[1]) {
      const at = [...all[1]].findIndex((letter, i) => own[1][i] !== letter);
      found.push(`${href} ${all[0]} ${own[0]}: ${all[1].slice(at - 40, at + 60)} | ${own[1].slice(at - 40, at + 60)}`);
    }
  }
  return found;
}

/** The reads that are of a job, its newest applications and its changes; one job's applications are printed, too. */
async function readsOf(job: { id: number; number: string }): Promise<string[]> {
  const [applications, changes] = await database.read(async (sql) => [
    await sql.anyRows('SELECT number FROM application WHERE job_id = $1 ORDER BY number DESC LIMIT 2', [job.id]),
    await sql.anyRows('SELECT number FROM change_order WHERE job_id = $1', [job.id]),
  ]);
  return Object.entries(READS).flatMap(([name, args]) => {
    const call: Call = CALLS[name as keyof Reading];
    if (!('job' in args)) return [];
    const own = { ...args, job: job.number };
    if (name === 'applicationPdf' && job.number !== '2101') return [];
    if ('application' in args) return applications.map((it) => hrefOf(call, { ...own, application: it.number } as never));
    if ('change' in args) return changes.map((it) => hrefOf(call, { ...own, change: it.number } as never));
    return [hrefOf(call, own as never)];
  });
}

test('each job of a team reads as it does for whoever sees all jobs', async () => {
  const found: string[] = [];
  // A change that adds, one that omits, one that waits; with sections, a day sheet and a schedule of instalments.
  for (const job of jobs.filter((it) => ['2101', '2104', '2110'].includes(it.number))) {
    await setTeam([job.id]);
    const hrefs = await readsOf(job);
    found.push(...(await differing(hrefs)));
  }
  expect(found).toEqual([]);
});

test('a row belongs to a job by a column that is never null, but for the tables that are said to have rows of no job', async () => {
  const nullable = await database.read(async (sql) => {
    const found: string[] = [];
    for (const { table, column } of await belongings(sql)) {
      const columns = await sql.anyRows(
        `SELECT name FROM pragma_table_info('${table}') WHERE name = $1 AND "notnull" = 0 AND pk = 0`,
        [column],
      );
      if (columns.length > 0) found.push(table);
    }
    return found;
  });
  expect(nullable.toSorted()).toEqual(Object.keys(ROWS_OF_NO_JOB).toSorted());
});

test('whoever is on the team of every job reads of the company what whoever sees all jobs does', async () => {
  expect([seesAllJobs({ ...MANAGER, allJobs: true }), seesAllJobs(MANAGER)]).toEqual([true, false]);
  await setTeam(jobs.map((it) => it.id));
  const hrefs = Object.entries(READS)
    // A session says whose it is; journals of a posting over several jobs are sums over all of them, and are shown to nobody else.
    .filter(([name, args]) => !('job' in args) && !['session', 'posting'].includes(name))
    .map(([name, args]) => hrefOf(CALLS[name as keyof Reading], args as never));
  expect(await differing(hrefs)).toEqual([]);
});
