import { creditOffers, restOf } from '../../core/charging/credit';
import { invoiceLines } from '../../core/charging/dayworkInvoice';
import { nextReference } from '../../core/charging/nextReference';
import type { PlainDate } from '../../core/calendar/plainDate';
import { takesRefusal } from '../../core/jobs/takes';
import { messageOf, showIn } from '../../core/refusals/messages';
import type { Refusal } from '../../core/refusals/refusal';
import type { DayworkView } from '../../wire/charging';
import { RECEIPTS_OF_INVOICE } from '../billing/queries';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { creditedState, invoiceOf } from './creditDaywork';
import { wordsOf } from './invoiceWords';
import { LINES_OF_DAYWORK, REFERENCES_OF_JOBS } from './queries';

const DRAFT = 'It is a draft';

/** A daywork invoice as the client reads it, with what was credited and received by the date. */
export async function dayworkView(sql: Reader, number: string, reference: string, asOf: PlainDate): Promise<DayworkView> {
  const { job, invoice } = await invoiceOf(sql, number, reference);
  const rows = await sql.all(LINES_OF_DAYWORK, [invoice.id]);
  const entries = rows.map((it) => ({ ...it, words: wordsOf(it) }));
  const state = await creditedState(sql, invoice);
  const credits = state.credits.filter((it) => it.dated <= asOf);
  const receipts = (await sql.all(RECEIPTS_OF_INVOICE, [job.id, reference])).filter((it) => it.dated <= asOf);
  const left = restOf({ ...state, credits });
  const taken = new Set((await sql.all(REFERENCES_OF_JOBS, [JSON.stringify([job.id])])).map((it) => it.reference));
  const isDraft = invoice.status === 'draft';
  const nextCreditNote = nextReference('CN', taken);
  const show = showIn(await loadDigits(sql));
  const why = (refusal: Refusal | null) => refusal && messageOf(refusal, show);
  const offers = creditOffers(state, { on: asOf, creditNote: nextCreditNote, taxRate: job.taxRate });
  const said = (refusal: Refusal | null) => (isDraft ? DRAFT : why(takesRefusal(job, 'receipts') ?? refusal));
  return {
    job: job.number,
    jobName: job.name,
    client: job.client,
    clientName: job.clientName,
    reference,
    number: invoice.number,
    dated: invoice.dated,
    cutOff: invoice.cutOff,
    dueOn: invoice.dueOn,
    status: invoice.status,
    shown: invoice.shown,
    wording: invoice.wording,
    lines: invoiceLines(entries, invoice.shown, invoice.wording),
    entries: entries.map(({ id, dated, reference: own, words, costType, charge, postingId }) => ({
      id,
      dated,
      reference: own,
      words,
      costType,
      charge,
      postingId,
    })),
    amount: invoice.amount,
    tax: invoice.tax,
    payable: invoice.amount + invoice.tax,
    credits,
    receipts,
    open: isDraft ? 0 : left.amount + left.tax - receipts.reduce((sum, it) => sum + it.amount, 0),
    postingId: invoice.postingId,
    nextCreditNote,
    can: {
      creditInFull: said(offers.inFull),
      creditInPart: said(offers.inPart),
      receive: isDraft ? DRAFT : why(takesRefusal(job, 'receipts')),
    },
  };
}
