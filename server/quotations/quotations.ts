import { LAST_QUOTATION } from './queries';
import { QuotationAlternateTable, QuotationPaymentTable, QuotationTable, TermsTextTable } from './models';
import { type RowOf } from '../db/fields';
import type { QuotationMove } from '../../core/offers/quotationLife';
import { quotationRefusal, quotedRefusal } from '../../core/offers/quotationRefusals';
import { assertAllowed, assertNoFaults, fieldError } from '../acts/refused';
import { EstimateTable } from '../estimates/models';
import type { Command } from '../acts/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { QuotationInput, SendInput, TermsInput } from '../../wire/quotations';
import { nextId, type Reader, type Sql } from '../db/sql';
import { quotationDocument } from '../offers/clientDocuments';
import { loadEstimate } from '../estimates/estimateViews';
import { jobByNumber } from '../jobs/jobByNumber';
import { loadQuotation, movingQuotation, type LoadedQuotation } from '../offers/quotationList';
import { offerDocument } from '../offers/offers';
import type { Sending } from '../offers/sending';
import { type Actor } from '../acts/audit';
import { assertVersion } from '../versions/staleness';

/** Saves a quotation as typed; `number` null makes a new one. Gives back its number and version. */
export async function saveQuotation(
  command: Command,
  job: string,
  number: number | null,
  input: QuotationInput,
): Promise<{ number: number; version: number }> {
  const { sql, actor } = command;
  const identity = await jobByNumber(sql, job, 'job');
  const jobId = identity.id;
  assertAllowed([quotedRefusal(identity)], { code: 'refused' });
  const { row: estimate } = await loadEstimate(sql, job, input.estimate);
  const there = number === null ? null : await movable(sql, 'edit', job, number);
  assertVersion(command, 'this quotation', there, input.version);
  const faults = paymentFaults(input);
  assertNoFaults(faults);
  const last = await sql.get(LAST_QUOTATION, [jobId]);
  const own = there?.number ?? (last?.number ?? 0) + 1;
  const version = (there?.version ?? 0) + 1;
  const id = there?.id ?? (await nextId(sql, QuotationTable));
  await saveFacts(sql, actor, { id, job_id: jobId, number: own, estimate_id: estimate.id, version }, input);
  await saveParts(sql, id, input);
  command.note(`${job}/${own}`, { version });
  return { number: own, version };
}

function paymentFaults(input: QuotationInput): Fault[] {
  return input.payments.flatMap((it, i) =>
    (it.rate === null) === (it.amount === null)
      ? [{ field: `payments.${i}.rate`, message: 'A payment is a percentage of the price or an amount: enter one of the two' }]
      : [],
  );
}

/** A quotation that is to make a move of its life. Throws refused where it cannot. */
async function movable(sql: Reader, move: QuotationMove, job: string, number: number): Promise<LoadedQuotation> {
  const quotation = await loadQuotation(sql, job, number);
  const { document, difference } = await quotationDocument(sql, job, number, '', quotation);
  const moving = movingQuotation(await jobByNumber(sql, job, 'job'), quotation, document, difference);
  assertAllowed([quotationRefusal(move, moving)], { digits: document.digits, code: 'refused' });
  return quotation;
}

type QuotationIds = Pick<RowOf<typeof QuotationTable>, 'id' | 'job_id' | 'number' | 'estimate_id' | 'version'>;

async function saveFacts(sql: Sql, actor: Actor, ids: QuotationIds, it: QuotationInput): Promise<void> {
  const { title, presentation, contact, email, introduction, exclusions, terms, validUntil } = it;
  const row = {
    ...ids,
    title,
    presentation,
    quantities: it.quantities ? 1 : 0,
    unit_prices: it.unitPrices ? 1 : 0,
    contact,
    email,
    introduction,
    exclusions,
    terms,
    valid_until: validUntil,
    status: 'draft' as const,
    saved_by: actor.name,
    saved_at: actor.at,
  };
  await sql.save(QuotationTable, [row], ['id']);
}

async function saveParts(sql: Sql, id: number, it: QuotationInput): Promise<void> {
  await sql.remove(QuotationAlternateTable, { quotation_id: id });
  await sql.remove(QuotationPaymentTable, { quotation_id: id });
  await sql.insertAll(
    QuotationAlternateTable,
    it.alternates.map((one) => ({ quotation_id: id, name: one.name, amount: one.amount })),
  );
  await sql.insertAll(
    QuotationPaymentTable,
    it.payments.map((one) => ({
      quotation_id: id,
      name: one.name,
      rate: one.rate,
      amount: one.amount,
      due_on: one.dueOn,
      stage: one.stage,
    })),
  );
}

export async function deleteQuotation(command: Command, job: string, number: number): Promise<void> {
  const { sql } = command;
  const { id } = await movable(sql, 'delete', job, number);
  await sql.remove(QuotationTable, { id });
  command.note(`${job}/${number}`, {});
}

/**
 * Sends a quotation: a message with the document attached goes into the outbox, the client gets a page to answer on, and
 * the estimate behind it is frozen. All of it, or nothing.
 */
export async function sendQuotation(
  command: Command,
  sending: Sending,
  job: string,
  number: number,
  input: SendInput,
): Promise<void> {
  const { sql, actor } = command;
  const { id: jobId } = await jobByNumber(sql, job, 'job');
  const quotation = await movable(sql, 'send', job, number);
  if (quotation.validUntil !== null && quotation.validUntil < input.on)
    throw fieldError('on', `It would be sent after the day it is valid until, ${quotation.validUntil}; move one of the two`);
  const { document } = await quotationDocument(sql, job, number, input.on, quotation);
  await sql.update(QuotationTable, { id: quotation.id }, { status: 'sent', sent_on: input.on });
  const estimate = { job_id: jobId, number: quotation.estimate, status: 'draft' as const };
  await sql.update(EstimateTable, estimate, { status: 'sent', sent_on: input.on, reference: `Quotation ${number}` });
  await offerDocument(sql, sending, actor, { job, kind: 'quotation', number: String(number), document }, input);
  command.note(`${job}/${number}`, { to: input.to, on: input.on });
}

/** Saves a text of the company's library of terms, by its name. */
export async function saveTerms(command: Command, input: TermsInput): Promise<void> {
  const { sql } = command;
  await sql.save(TermsTextTable, [{ name: input.name, body: input.body }], ['name']);
  command.note(input.name, input);
}

export async function removeTerms(command: Command, name: string): Promise<void> {
  const { sql } = command;
  if (!(await sql.findOne(TermsTextTable, { name }))) throw new LedrinError('not-found', `There are no terms called ${name}`);
  await sql.remove(TermsTextTable, { name });
  command.note(name, {});
}
