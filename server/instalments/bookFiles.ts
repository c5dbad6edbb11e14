import { DUE_AT } from '../../core/instalments/instalment';
import { MAX_INSTALMENTS } from '../../core/instalments/proposedInstalments';
import { bookFile } from '../bookFormat/bookFile';
import { amount, date, integer, oneOf, percent, REQUIRED, text } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { jobs } from '../jobs/bookFiles';
import { jobSections } from '../plan/bookFiles';
import { InstalmentStageTable, InstalmentTable } from './models';

const KEY = { job: text(REQUIRED), instalment: integer(1, MAX_INSTALMENTS)(REQUIRED, '1 to 500, their order') };

export const billingInstalments = bookFile({
  name: 'billing_instalments',
  columns: {
    ...KEY,
    name: text(REQUIRED),
    due: oneOf(DUE_AT)(),
    day: date('with due `day` only'),
    days: integer(-3650, 3650)('after the start or finish; below 0 for before'),
    taken_from: oneOf(['stages', 'job'])(),
    percent: percent('or amount'),
    amount: amount(),
  },
  key: ['job', 'instalment'],
  called: 'instalment',
  existing: null,
  takenBy: 'final',
  refers: { job: { to: jobs } },
  query: `SELECT i.id, j.number AS job, i.number AS instalment, i.name, i.due, i.day, nullif(i.days, 0) AS days, i.taken_from, i.rate AS percent, i.amount
    FROM instalment i JOIN job j ON j.id = i.job_id`,
  check(row, book) {
    const at = (column: string, message: string) => book.fault(billingInstalments, row, column, message);
    if (book.there(jobs, row.job)?.scheduled === 1)
      at('job', `job ${row.job} has a billing schedule in the database already; an import brings one whole`);
    if ((row.percent === null) === (row.amount === null) && row.percent !== undefined && row.amount !== undefined)
      at('percent', 'enter a percentage or an amount, not both');
    if (row.due === undefined) return;
    const onDay = (row.due ?? 'day') === 'day';
    if (!onDay && row.day) at('day', `due at a ${row.due}, it has no day of its own; expected an empty cell`);
    if (onDay && row.days) at('days', 'due on a day; days are counted from a start or a finish, expected an empty cell');
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      billingInstalments,
      InstalmentTable,
      rows,
      (row) => [row.job, row.instalment],
      (row) => ({
        job_id: into.id(jobs, row.job),
        number: row.instalment,
        name: row.name,
        due: row.due ?? 'day',
        day: row.day,
        days: row.days ?? 0,
        taken_from: row.taken_from ?? 'job',
        rate: row.percent,
        amount: row.amount,
      }),
    ),
});

export const instalmentStages = bookFile({
  name: 'instalment_stages',
  columns: { ...KEY, section: text(REQUIRED, 'of job_sections.csv') },
  key: ['job', 'instalment', 'section'],
  existing: null,
  takenBy: 'final',
  refers: {
    job: { to: jobs },
    instalment: { to: billingInstalments, by: ['job', 'instalment'] },
    section: { to: jobSections, by: ['job', 'section'] },
  },
  query: `SELECT s.id, j.number AS job, i.number AS instalment, s.section
    FROM instalment_stage s JOIN instalment i ON i.id = s.instalment_id JOIN job j ON j.id = i.job_id`,
  /** An instalment taken from its stages has some. */
  checkAll(rows, book) {
    if (book.shapeOf(instalmentStages)?.readable === false) return;
    const waiting = new Set(rows.map((row) => joinKey(row.job ?? '', row.instalment ?? '')));
    for (const row of book.rowsOf(billingInstalments))
      if (row.taken_from === 'stages' && row.job && row.instalment && !waiting.has(joinKey(row.job, row.instalment)))
        book.fault(billingInstalments, row, 'taken_from', 'it names no stages in instalment_stages.csv to be taken from');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      InstalmentStageTable,
      rows.map((row) => ({ instalment_id: into.id(billingInstalments, row.job, row.instalment), section: row.section })),
    ),
});
