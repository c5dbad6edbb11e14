import { certifiedApplicationJournal } from '../../../core/billing/certifiedApplication';
import { oppositeOf } from '../../../core/ledger/journal';
import { amount, date, integer, REQUIRED, text } from '../../bookFormat/columns';
import { bookFile } from '../../bookFormat/bookFile';
import { jobs } from '../../jobs/bookFiles';
import { PostingBatch } from '../../ledger/postingBatch';
import { applications } from './bookFiles';
import { REVERSED_CERTIFICATIONS } from './queries';

/** Certifications that were taken back: what each posted, and why it was reversed. Together they come to nothing. */
export const reversedCertifications = bookFile({
  name: 'reversed_certifications',
  columns: {
    job: text(REQUIRED),
    application: integer(1, 9999)(REQUIRED, '1, 2, 3 …'),
    number: integer(1, 9999)(REQUIRED, 'of the application: 1 the first that was reversed'),
    dated: date(REQUIRED, 'of the application as it was certified'),
    certified_on: date(REQUIRED),
    billed: amount(REQUIRED, 'what it added to the gross to date'),
    retained: amount(REQUIRED, 'what it added to the retention'),
    tax: amount(REQUIRED),
    reason: text(REQUIRED, 'why it was reversed'),
  },
  key: ['job', 'application', 'number'],
  called: 'reversed certification',
  takenBy: 'final',
  refers: { job: { to: jobs }, application: { to: applications, by: ['job', 'application'] } },
  query: REVERSED_CERTIFICATIONS,
  check(row, book) {
    if (row.dated && row.certified_on && row.certified_on < row.dated)
      book.fault(reversedCertifications, row, 'certified_on', `expected a day on or after ${row.dated}, the application's own`);
  },
  acts: (rows) => rows.map((row) => ({ row, column: 'reason', kind: 'uncertify', amount: Math.abs(row.billed ?? 0) })),
  async save(rows, into) {
    const postings = await PostingBatch.open(into.sql, into.actor);
    for (const { job, application, dated, certified_on: on, billed, retained, tax, reason } of rows) {
      const posting = { jobId: into.id(jobs, job), reference: String(application), postedOn: on, dated };
      const figures = { gross: billed, retention: retained, due: billed - retained, tax };
      const journal = certifiedApplicationJournal(on, figures, { gross: 0, retention: 0 });
      const reversesId = postings.add({ ...posting, kind: 'application' }, journal);
      postings.add({ ...posting, kind: 'reversal', note: reason, reversesId }, oppositeOf(journal));
    }
    await postings.save();
  },
});
