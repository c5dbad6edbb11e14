import { COST_TYPES } from '../../core/costs/costType';
import { bookFile } from '../bookFormat/bookFile';
import { date, oneOf, REQUIRED, text } from '../bookFormat/columns';
import { costCodes } from '../company/book/bookFiles';
import { jobs } from '../jobs/bookFiles';
import { CostLinePlanTable, JobSectionTable } from './models';

export const jobSections = bookFile({
  name: 'job_sections',
  columns: {
    job: text(REQUIRED),
    section: text(REQUIRED),
    starts_on: date(),
    finishes_on: date(),
    started_on: date('required once finished'),
    finished_on: date(),
  },
  key: ['job', 'section'],
  called: 'section',
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query:
    'SELECT s.id, j.number AS job, s.name AS section, s.starts_on, s.finishes_on, s.started_on, s.finished_on FROM job_section s JOIN job j ON j.id = s.job_id',
  check(row, book) {
    const at = (column: string, message: string) => book.fault(jobSections, row, column, message);
    if (row.starts_on && row.finishes_on && row.finishes_on < row.starts_on)
      at('finishes_on', `${row.finishes_on} is before starts_on, ${row.starts_on}`);
    if (row.started_on && row.finished_on && row.finished_on < row.started_on)
      at('finished_on', `${row.finished_on} is before started_on, ${row.started_on}`);
    if (row.finished_on && row.started_on === null)
      at('started_on', 'missing required cell: a section that is finished needs the day it started');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobSectionTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        name: row.section,
        starts_on: row.starts_on,
        finishes_on: row.finishes_on,
        started_on: row.started_on,
        finished_on: row.finished_on,
      })),
    ),
});

export const costPlan = bookFile({
  name: 'cost_plan',
  columns: {
    job: text(REQUIRED),
    section: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    starts_on: date(REQUIRED),
    finishes_on: date(REQUIRED),
  },
  key: ['job', 'section', 'cost_code', 'cost_type'],
  takenBy: 'unlocked',
  refers: { job: { to: jobs }, cost_code: { to: costCodes } },
  query: `SELECT p.cost_line_id AS id, l.job, l.section, l.cost_code, l.cost_type, p.starts_on, p.finishes_on
    FROM cost_line_plan p JOIN named_cost_line l ON l.id = p.cost_line_id`,
  check(row, book) {
    if (row.starts_on && row.finishes_on && row.finishes_on < row.starts_on)
      book.fault(costPlan, row, 'finishes_on', `${row.finishes_on} is before starts_on, ${row.starts_on}`);
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      CostLinePlanTable,
      rows.map((row) => ({
        cost_line_id: into.costLine(into.id(jobs, row.job), row, costCodes),
        starts_on: row.starts_on,
        finishes_on: row.finishes_on,
      })),
    ),
});
