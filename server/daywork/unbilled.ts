import type { PlainDate } from '../../core/calendar/plainDate';
import { nextReference } from '../../core/charging/nextReference';
import { chargeOf } from '../../core/charging/charge';
import { whyNotTaken } from '../../core/jobs/takes';
import { present } from '../../core/errors/known';
import type { ChargeEntry, DayworkRow, JobCharging, UnbilledJob } from '../../wire/charging';
import { loadCompany, loadDigits } from '../company/company';
import { allInBulk } from '../db/inBulk';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { digestOf } from '../versions/digest';
import { loadChargeTerms } from '../charging/chargeTerms';
import { entryToCharge } from '../charging/marks';
import { DAYWORK_OF_JOB, REFERENCES_OF_JOBS, UNBILLED_JOBS } from './queries';
import { MARKED_OF_JOBS, OTHERS_OF_JOB } from '../charging/queries';
import { jobToInvoice } from './planRun';
import { markupsOfJob } from '../charging/saveMarkups';

/** What is charged and on no invoice yet, by job: of all jobs, or of one. */
export async function unbilledJobs(sql: Reader, asOf: PlainDate, jobId: number | null = null): Promise<UnbilledJob[]> {
  const rows = await sql.all(UNBILLED_JOBS, [asOf, jobId]);
  return rows.map(({ status, locked, ...it }) => ({ ...it, why: whyNotTaken({ status, locked }, 'bills') }));
}

/** What is charged on a job, entry by entry, with its invoices. `others`: its cost that is not charged instead. */
export async function jobCharging(
  sql: Reader,
  number: string,
  asOf: PlainDate,
  show: 'unbilled' | 'others',
): Promise<JobCharging> {
  const { id } = await jobByNumber(sql, number, 'job');
  const [unbilled] = await unbilledJobs(sql, asOf, id);
  const job = await jobToInvoice(sql, number);
  const markups = await markupsOfJob(sql, id);
  const taken = new Set((await sql.all(REFERENCES_OF_JOBS, [JSON.stringify([id])])).map((it) => it.reference));
  return {
    unbilled: present(unbilled),
    entries: await chargeEntries(sql, id, asOf, show),
    invoices: await dayworkOfJob(sql, id, asOf),
    markups,
    markupsSeen: digestOf(markups),
    nextReference: nextReference('D', taken),
    taxName: (await loadCompany(sql)).taxName || 'Tax',
    taxRate: job.taxRate,
  };
}

async function chargeEntries(sql: Reader, jobId: number, asOf: PlainDate, show: 'unbilled' | 'others'): Promise<ChargeEntry[]> {
  const found =
    show === 'unbilled'
      ? await allInBulk(sql, MARKED_OF_JOBS, [JSON.stringify([jobId]), asOf])
      : await sql.all(OTHERS_OF_JOB, [jobId, asOf]);
  const rows = found.filter((it) => it.takenBy === null);
  const [terms, digits] = [await loadChargeTerms(sql), await loadDigits(sql)];
  const entries = new Map<string, ChargeEntry>();
  for (const it of rows) {
    const charged = chargeOf(entryToCharge(it), terms, digits);
    // The burden of a line of time stands with its pay.
    const key = it.timeLine === null ? `entry ${it.id}` : `time ${it.timeLine}`;
    const pay = entries.get(key);
    if (pay) {
      pay.cost += it.amount;
      pay.charge += charged.charge;
      continue;
    }
    entries.set(key, {
      id: it.id,
      dated: it.dated,
      postedOn: it.postedOn,
      countsFrom: it.countsFrom,
      reference: it.reference,
      party: it.party,
      description: it.description,
      wording: it.wording,
      section: it.section,
      costCode: it.costCode,
      costType: it.costType,
      hours: it.hours,
      cost: it.amount,
      charge: charged.charge,
      mark: it.mark,
      from: it.chargeFrom,
      markup: it.markup,
      rung: charged.by === 'rate' ? charged.rate.rung : null,
      rate: charged.by === 'rate' ? charged.rate.rate : null,
      marked: charged.by === 'markup' ? charged.markup : null,
      postingId: it.postingId,
      sheet: it.sheet,
    });
  }
  return [...entries.values()];
}

/** The daywork invoices of a job as of a date. */
export async function dayworkOfJob(sql: Reader, jobId: number, asOf: PlainDate): Promise<DayworkRow[]> {
  return (await sql.all(DAYWORK_OF_JOB, [jobId, asOf])).map(({ creditedInFull, ...it }) => ({
    ...it,
    creditedInFull: creditedInFull === 1,
    open: it.status === 'draft' ? 0 : it.amount + it.tax - it.credited - it.received,
  }));
}
