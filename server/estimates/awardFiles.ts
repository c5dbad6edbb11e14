import { present } from '../../core/errors/known';
import { bookFile } from '../bookFormat/bookFile';
import { amount, REQUIRED, text } from '../bookFormat/columns';
import { joinKey } from '../bookFormat/keys';
import { jobs, scheduleOfValues } from '../jobs/bookFiles';
import { acceptedEstimate, checkAcceptedLine, estimateLines, estimates } from './bookFiles';
import { AwardLineTable, AwardTable } from './models';

export const awards = bookFile({
  name: 'awards',
  columns: {
    job: text(REQUIRED),
    sov_line: text(REQUIRED),
    net: amount(REQUIRED, 'cost and markup'),
    spread: amount(REQUIRED, 'overhead, profit, rounding'),
    difference: amount(REQUIRED, 'to the price quoted; the three come to the scheduled value'),
  },
  key: ['job', 'sov_line'],
  called: 'award of SOV line',
  existing: null,
  takenBy: 'contract',
  refers: { job: { to: jobs } },
  query: `SELECT a.sov_line_id AS id, j.number AS job, s.line AS sov_line, a.net, a.spread, a.difference
    FROM award a JOIN sov_line s ON s.id = a.sov_line_id JOIN job j ON j.id = s.job_id`,
  checkAll(rows, book) {
    const scheduled = new Map(
      book.rowsOf(scheduleOfValues).map((row) => [joinKey(row.job ?? '', row.sov_line ?? ''), row.scheduled_value]),
    );
    for (const row of rows) {
      const { job, sov_line: line, net, spread, difference } = row;
      if (!job || !line || !book.keysOf(jobs).has(job)) continue;
      if (acceptedEstimate(book, job) === undefined) book.fault(awards, row, 'job', `job ${job} has no accepted estimate`);
      const [value, three] = [scheduled.get(joinKey(job, line)), [net, spread, difference]];
      if (!scheduled.has(joinKey(job, line)))
        book.fault(awards, row, 'sov_line', `unknown reference: the book has no SOV line ${line} on ${job}`);
      else if (
        typeof value === 'number' &&
        !three.includes(undefined) &&
        three.reduce<number>((sum, it) => sum + (it ?? 0), 0) !== value
      )
        book.fault(awards, row, 'difference', 'net, spread and difference do not come to the scheduled value of the line');
    }
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      AwardTable,
      rows.map((row) => ({
        sov_line_id: into.id(scheduleOfValues, row.job, row.sov_line),
        estimate_id: into.id(estimates, row.job, present(acceptedEstimate(into.book, row.job))),
        net: row.net,
        spread: row.spread,
        difference: row.difference,
      })),
    ),
});

export const awardLines = bookFile({
  name: 'award_lines',
  columns: { job: text(REQUIRED), estimate_line: text(REQUIRED), sov_line: text(REQUIRED) },
  key: ['job', 'estimate_line'],
  existing: null,
  takenBy: 'contract',
  refers: { job: { to: jobs }, sov_line: { to: awards, by: ['job', 'sov_line'] } },
  query: `SELECT a.estimate_line_id AS id, j.number AS job, l.line AS estimate_line, s.line AS sov_line
    FROM award_line a JOIN estimate_line l ON l.id = a.estimate_line_id JOIN sov_line s ON s.id = a.sov_line_id JOIN job j ON j.id = s.job_id`,
  check: (row, book): void => checkAcceptedLine(awardLines, row, book),
  save: (rows, into): Promise<void> =>
    into.insertAll(
      AwardLineTable,
      rows.map((row) => ({
        estimate_line_id: into.id(estimateLines, ...[row.job, present(acceptedEstimate(into.book, row.job)), row.estimate_line]),
        sov_line_id: into.id(scheduleOfValues, row.job, row.sov_line),
      })),
    ),
});
