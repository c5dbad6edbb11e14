import { receivable } from '../../core/billing/invoiceRefusals';
import { applicationRefusal } from '../../core/billing/applicationRefusals';
import { showIn } from '../../core/refusals/messages';
import { reasonsOf } from '../../core/refusals/reasons';
import { movingApplication } from './applications';
import { loadPositions } from '../costs/jobPositions';
import { RECEIPTS_OF_INVOICE, REVERSED_CERTIFICATIONS } from './queries';
import { ApplicationTable } from './models';
import { known, present } from '../../core/errors/known';
import { APPLICATION_LIFE } from '../../core/billing/applicationLife';
import { amountBy, screenDate, valueApplication, type Application, type ValuedApplication } from '../../core/billing/application';
import { summaryOf } from '../../core/billing/summaryFigures';
import { describeRetention } from '../../core/billing/describeRetention';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ApplicationView, BilledLineView } from '../../wire/billing';
import { planCertification } from '../../core/billing/certification';
import type { Reader } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from './billingJobs';
import { loadCompany } from '../company/company';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { billedBySchedule } from './billedBySchedule';
import { journalView } from '../../core/ledger/journalView';
import { postingJournals } from '../ledger/postingViews';
import { costBySovLine, earnedByCost } from '../costs/costBySovLine';

/** One application for the page on which it is worked; certified figures only where it was certified by the date. */
export async function applicationView(sql: Reader, jobNumber: string, number: number, asOf: string): Promise<ApplicationView> {
  const identity = await jobByNumber(sql, jobNumber, 'contract');
  const job = await loadBillingJob(sql, identity.id);
  const application = job.applications.find((it) => it.number === number);
  if (!application) throw new LedrinError('not-found', `Job ${jobNumber} has no application ${number}`);
  const valued = valueApplication(job, application, screenDate(application, asOf));
  const id = known(job.applicationIds, number);
  const [row, receipts, reversed, company, earned, [position]] = await Promise.all([
    sql.findOne(ApplicationTable, { id }),
    sql.all(RECEIPTS_OF_INVOICE, [identity.id, String(number)]),
    sql.all(REVERSED_CERTIFICATIONS, [identity.id, String(number)]),
    loadCompany(sql),
    earnedByLine(sql, identity, valued, application.dated),
    loadPositions(sql, application.dated, identity.id),
  ]);
  const saved = present(row);
  const shown = receipts.filter((it) => it.dated <= asOf);
  const moving = await movingApplication(sql, { job, status: identity.status, digits: company.digits }, number);
  const later = application.status === 'certified' && present(application.certifiedOn) > asOf;
  return {
    job: jobNumber,
    jobName: identity.name,
    client: job.client,
    neverCertifies: job.neverCertifies,
    number,
    version: saved.version,
    dated: application.dated,
    status: later ? 'submitted' : application.status,
    certifiedOn: later ? null : application.certifiedOn,
    certifiedLater: later ? application.certifiedOn : null,
    reference: application.reference,
    above: saved.above_scheduled,
    aboveReason: saved.above_reason,
    dueOn: job.dueDays.get(String(number)) ?? null,
    received: amountBy(receipts, asOf),
    receivable: receivable({ payable: valued.payable, receipts }, asOf),
    locked: job.locked,
    lines: lineViews(valued, earned, await billedBySchedule(sql, job, application.dated)),
    summary: summaryOf(valued),
    earned: present(position).progress.earned,
    retentionWords: describeRetention(job.retention),
    taxName: company.taxName || 'Tax',
    taxRate: job.taxRate,
    retentionRule: job.retention,
    journal:
      saved.posting_id === null ? plannedJournal(job, application) : ((await postingJournals(sql, saved.posting_id))[0] ?? null),
    postingId: saved.posting_id,
    receipts: shown,
    reversed,
    refused: reasonsOf(APPLICATION_LIFE, (move) => applicationRefusal(move, moving), showIn(company.digits)),
    previousNumber: valued.previousNumber,
    hasNext: job.applications.some((it) => it.number === number + 1),
  };
}

function lineViews(
  valued: ValuedApplication,
  earned: ReadonlyMap<string, number>,
  scheduled: ReadonlyMap<string, number> | null,
): BilledLineView[] {
  return valued.lines.map((line) => ({
    line: line.line,
    section: line.section,
    description: line.description,
    scheduled: line.scheduledToDate,
    previousWork: line.previousWork,
    work: line.work,
    materials: line.materials,
    appliedWork: line.appliedWork,
    appliedMaterials: line.appliedMaterials,
    toDate: line.toDate,
    retention: line.retention,
    retentionRate: line.retentionRate,
    earnedByCost: earned.get(line.line) ?? null,
    bySchedule: scheduled?.get(line.line) ?? null,
  }));
}

/** What certifying it as applied for would post: on its own day, or where the one before it was certified later, on that day. */
function plannedJournal(job: LoadedBillingJob, application: Application) {
  const before = job.applications.find((it) => it.number === application.number - 1)?.certifiedOn ?? application.dated;
  const certifiedOn = before > application.dated ? before : application.dated;
  return journalView(planCertification(job, { ...application, certifiedOn }).journal);
}

/** What cost says each line has earned. */
async function earnedByLine(
  sql: Reader,
  job: JobIdentity,
  valued: ValuedApplication,
  asOf: string,
): Promise<Map<string, number>> {
  const served = await costBySovLine(sql, job, asOf);
  const earned = valued.lines.map((line) => [line.line, earnedByCost(line.scheduledToDate, served.get(line.line))] as const);
  return new Map(earned.filter((it): it is readonly [string, number] => it[1] !== null));
}
