import { InvoiceTable } from '../billing/models';
import { ClientTable } from '../company/models';
import { POSTED_OR_APPLIED, PEOPLE, EVENTS, CHECKS, ATTACHMENTS, MOVES, CHECK_TEMPLATES, ATTACHED_FILE } from './queries';
import { known, present } from '../../core/errors/known';
import { type RowOf } from '../db/fields';
import { JobTable } from '../jobs/models';
import { plainFacts } from '../../core/jobs/jobFacts';
import { type ListFact } from '../../core/jobs/listFacts';
import { LedrinError } from '../../core/errors/ledrinError';
import type { CheckTemplate, JobFacts, JobFileView } from '../../wire/jobFile';
import type { Reader } from '../db/sql';
import { loadBillingJobs } from '../billing/billingJobs';
import { digestOf } from '../versions/digest';
import { listFactsOf } from '../jobs/listFacts';
import { jobByNumber } from '../jobs/jobByNumber';
import { retentionTermsOf } from '../jobs/retentionTerms';
import { missingForSite } from '../jobs/readiness';

type FactRow = RowOf<typeof JobTable>;

/** Retention, tax, terms and revenue method are fixed once an application or an entry was worked with them. */
export async function factsAreFixed(sql: Reader, jobId: number): Promise<boolean> {
  return (await sql.get(POSTED_OR_APPLIED, [jobId])) !== undefined;
}

/** Invoices name the client: once there is one, the job keeps it. */
export async function isBilled(sql: Reader, jobId: number): Promise<boolean> {
  return (await sql.findOne(InvoiceTable, { job_id: jobId })) !== undefined;
}

/** Everything of a job beside its figures. */
export async function jobFileView(sql: Reader, number: string): Promise<JobFileView> {
  const { id, status } = await jobByNumber(sql, number, 'job');
  const [row, fixed, billed, billing, people, events, checklist, templates, files, moves, missing] = await Promise.all([
    sql.findOne(JobTable, { id }),
    factsAreFixed(sql, id),
    isBilled(sql, id),
    loadBillingJobs(sql, id),
    sql.all(PEOPLE, [id]),
    sql.all(EVENTS, [id]),
    sql.all(CHECKS, [id]),
    checkTemplates(sql),
    sql.all(ATTACHMENTS, [id]),
    sql.all(MOVES, [id]),
    // What goes on site must be whole; what is there already is not held up any more.
    status === 'tender' || status === 'awarded' || status === 'on-site' ? missingForSite(sql, id) : [],
  ]);
  const client = present(await sql.findOne(ClientTable, { id: present(row).client_id }));
  const facts = { ...factsOf(present(row), client.code), ...(await listFactsOf(sql, present(row))) };
  return {
    seen: { facts: digestOf(facts), people: digestOf(people), checklist: digestOf(checklist) },
    facts,
    fixed,
    billed,
    lines: known(billing, number).sovLines.map((it) => ({ value: it.scheduledValue, rate: it.retentionRate })),
    people,
    events,
    checklist,
    templates,
    moves,
    missing,
    files: files.map((it) => ({ ...it, forSite: it.forSite === 1 })),
  };
}

function factsOf(row: FactRow, client: string): Omit<JobFacts, ListFact> {
  return {
    name: row.name,
    client,
    ...plainFacts(row),
    revenueMethod: row.revenue_method,
    pricing: row.pricing,
    ceiling: row.charge_ceiling,
    retention: retentionTermsOf(row),
    noRetention: row.no_retention === 1,
    taxRate: row.tax_rate,
    termsDays: row.terms_days,
  };
}

async function checkTemplates(sql: Reader): Promise<CheckTemplate[]> {
  const rows = await sql.all(CHECK_TEMPLATES);
  return rows.map((row) => ({ name: row.name, items: JSON.parse(row.items) as string[] }));
}

export async function attachedFile(sql: Reader, id: number): Promise<{ name: string; mediaType: string; hash: string }> {
  const row = await sql.get(ATTACHED_FILE, [id]);
  if (!row) throw new LedrinError('not-found', `There is no attachment ${id}`);
  return row;
}
