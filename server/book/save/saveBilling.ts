import { RetentionReleaseTable, ApplicationTable } from '../../billing/models';
import { PostingTable } from '../../ledger/models';
import { LAST_DAY } from '../../../core/calendar/plainDate';
import { isCertifiedAt } from '../../../core/billing/application';
import type { Journal } from '../../../core/ledger/journal';
import { rateOf } from '../../../core/money/rate';
import { receiptJournal } from '../../../core/billing/receipt';
import { retentionReleaseJournal } from '../../../core/billing/retentionRelease';
import type { BookBilling } from '../checks/billingOfBook';
import { isApplicationNumber } from '../checks/checkBilling';
import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import { nextId, type Sql } from '../../db/sql';
import { planCertification } from '../../../core/billing/certification';
import { savePostings, type PostingToSave } from '../../ledger/savePosting';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, type BookIds } from './saveKeyed';

/** Saves and posts the billing of a checked book: applications, releases and receipts, each with its journal. */
export async function saveBilling(
  sql: Sql,
  actor: Actor,
  check: BookCheck,
  ids: BookIds,
  billing: Map<string, BookBilling>,
): Promise<void> {
  const postings = await Postings.open(sql, actor);
  const tables = {
    application: [] as unknown[][],
    line: [] as unknown[][],
    release: [] as unknown[][],
    receipt: [] as unknown[][],
  };
  let applicationId = await nextId(sql, ApplicationTable);
  for (const [number, job] of billing) {
    for (const application of job.applications) {
      if (application.row === null) continue;
      const id = applicationId++;
      ids.applications.set(joinKey(number, application.number), id);
      const certified = isCertifiedAt(application, LAST_DAY) ? planCertification(job, application) : null;
      const posting =
        certified &&
        postings.add(
          {
            kind: 'application',
            jobId: ids.jobs.get(number)!,
            reference: String(application.number),
            dated: application.certifiedOn!,
          },
          certified.journal,
        );
      const { gross = null, retention = null, due = null, tax = null } = certified?.figures ?? {};
      tables.application.push([
        id,
        ids.jobs.get(number),
        application.number,
        application.dated,
        application.status,
        application.certifiedOn,
        application.reference,
        posting,
        gross,
        retention,
        due,
        tax,
      ]);
      for (const line of application.lines)
        tables.line.push([
          id,
          ids.sovLines.get(joinKey(number, line.line)),
          line.work,
          line.materials,
          line.certifiedWork,
          line.certifiedMaterials,
        ]);
    }
  }
  let releaseId = await nextId(sql, RetentionReleaseTable);
  for (const row of check.rows.retention_releases) {
    const jobId = ids.jobs.get(row.job!)!;
    const tax = rateOf(billing.get(row.job!)!.taxRate, row.amount!);
    const posting = postings.add(
      { kind: 'retention-release', jobId, reference: row.reference!, dated: row.dated! },
      retentionReleaseJournal(row.dated!, row.amount!, tax),
    );
    ids.releases.set(joinKey(row.job!, row.reference!), releaseId);
    tables.release.push([releaseId++, jobId, row.dated, row.amount, tax, row.reference, posting]);
  }
  for (const row of check.rows.receipts) {
    const jobId = ids.jobs.get(row.job!)!;
    const posting = postings.add(
      { kind: 'receipt', jobId, reference: row.reference ?? '', dated: row.dated! },
      receiptJournal(row.dated!, row.amount!),
    );
    const byNumber = isApplicationNumber(row.application!);
    const application = byNumber ? ids.applications.get(joinKey(row.job!, Number(row.application))) : null;
    const release = byNumber ? null : ids.releases.get(joinKey(row.job!, row.application!));
    tables.receipt.push([jobId, application, release, row.dated, row.amount, row.reference ?? '', posting]);
  }
  await postings.save();
  await bulkInsert(
    sql,
    'application',
    ['id', 'job_id', 'number', 'dated', 'status', 'certified_on', 'reference', 'posting_id', 'gross', 'retention', 'due', 'tax'],
    tables.application,
  );
  await bulkInsert(
    sql,
    'application_line',
    ['application_id', 'sov_line_id', 'work', 'materials', 'certified_work', 'certified_materials'],
    tables.line,
  );
  await bulkInsert(
    sql,
    'retention_release',
    ['id', 'job_id', 'dated', 'amount', 'tax', 'reference', 'posting_id'],
    tables.release,
  );
  await bulkInsert(
    sql,
    'receipt',
    ['job_id', 'application_id', 'release_id', 'dated', 'amount', 'reference', 'posting_id'],
    tables.receipt,
  );
}

/** Postings gathered to be posted in one go. */
class Postings {
  private readonly gathered: { id: number; posting: PostingToSave; journals: Journal[] }[] = [];

  private constructor(
    private readonly sql: Sql,
    private readonly actor: Actor,
    private next: number,
  ) {}

  static async open(sql: Sql, actor: Actor): Promise<Postings> {
    return new Postings(sql, actor, await nextId(sql, PostingTable));
  }

  add(posting: PostingToSave, journal: Journal): number {
    this.gathered.push({ id: this.next, posting, journals: [journal] });
    return this.next++;
  }

  save(): Promise<void> {
    return savePostings(this.sql, this.actor, this.gathered);
  }
}
