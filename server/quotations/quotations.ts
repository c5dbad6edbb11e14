import { QUOTATION_LIFE } from '../../core/offers/quotationLife';
import { assertMove } from '../http/refused';
import type { Command } from '../ledger/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { displayExact } from '../../core/money/display';
import type { QuotationInput, SendInput, TermsInput } from '../../wire/quotations';
import { bulkInsert, nextId, type Reader, type Sql } from '../db/sql';
import { quotationDocument } from '../offers/clientDocuments';
import { loadEstimate } from '../estimates/estimateViews';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { loadQuotation, type LoadedQuotation } from './quotationList';
import { offerDocument } from '../offers/offers';
import type { Sending } from '../offers/sending';
import { type Actor } from '../ledger/audit';
import { assertVersion } from '../versions/staleness';
import { fieldError } from '../company/saveCompany';

/** Saves a quotation as typed; `number` null makes a new one. Gives back its number and version. */
export async function saveQuotation(
  command: Command,
  job: string,
  number: number | null,
  input: QuotationInput,
): Promise<{ number: number; version: number }> {
  const { sql, actor } = command;
  const { id: jobId } = await tenderByNumber(sql, job);
  const { row: estimate } = await loadEstimate(sql, job, input.estimate);
  const there = number === null ? null : await movable(sql, 'edit', job, number);
  assertVersion(command, 'this quotation', there, input.version);
  const faults = paymentFaults(input);
  if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
  const last = await sql.get<{ number: number | null }>('SELECT max(number) AS number FROM quotation WHERE job_id = $1', [jobId]);
  const own = there?.number ?? (last?.number ?? 0) + 1;
  const version = (there?.version ?? 0) + 1;
  const id = there?.id ?? (await nextId(sql, 'quotation'));
  await saveFacts(sql, actor, [id, jobId, own, estimate.id, version], input);
  await saveParts(sql, id, input);
  command.note(`${job}/${own}`, { version });
  return { number: own, version };
}

/** The tender to quote for. Throws refused where the work was awarded already. */
async function tenderByNumber(sql: Reader, number: string): Promise<JobIdentity> {
  const job = await jobByNumber(sql, number, 'job');
  if (job.status !== 'tender')
    throw new LedrinError('refused', `Job ${number} is ${job.status}; what it asks for now goes out as a change order`);
  return job;
}

function paymentFaults(input: QuotationInput): Fault[] {
  return input.payments.flatMap((it, i) =>
    (it.rate === null) === (it.amount === null)
      ? [{ field: `payments.${i}.rate`, message: 'A payment is a percentage of the price or an amount: enter one of the two' }]
      : [],
  );
}

/** A quotation that is to make a move of its life. */
async function movable(sql: Reader, move: keyof typeof QUOTATION_LIFE, job: string, number: number): Promise<LoadedQuotation> {
  const quotation = await loadQuotation(sql, job, number);
  assertMove(QUOTATION_LIFE, move, `Quotation ${number}`, quotation.status);
  return quotation;
}

const FACTS = [
  ...[
    'id',
    'job_id',
    'number',
    'estimate_id',
    'version',
    'title',
    'presentation',
    'quantities',
    'unit_prices',
    'contact',
    'email',
  ],
  ...['introduction', 'exclusions', 'terms', 'valid_until', 'saved_by', 'saved_at'],
];

async function saveFacts(sql: Sql, actor: Actor, ids: readonly number[], it: QuotationInput): Promise<void> {
  const values = [
    ...ids,
    ...[it.title, it.presentation, it.quantities ? 1 : 0, it.unitPrices ? 1 : 0, it.contact, it.email],
    ...[it.introduction, it.exclusions, it.terms, it.validUntil, actor.name, actor.at],
  ];
  await sql.run(
    `INSERT INTO quotation (${FACTS.join(', ')}, status) VALUES (${FACTS.map((_, i) => `$${i + 1}`).join(', ')}, 'draft')
      ON CONFLICT (id) DO UPDATE SET ${FACTS.slice(3)
        .map((name) => `${name} = excluded.${name}`)
        .join(', ')}`,
    values,
  );
}

async function saveParts(sql: Sql, id: number, it: QuotationInput): Promise<void> {
  await sql.run('DELETE FROM quotation_alternate WHERE quotation_id = $1', [id]);
  await sql.run('DELETE FROM quotation_payment WHERE quotation_id = $1', [id]);
  await bulkInsert(
    sql,
    'quotation_alternate',
    ['quotation_id', 'name', 'amount'],
    it.alternates.map((one) => [id, one.name, one.amount]),
  );
  await bulkInsert(
    sql,
    'quotation_payment',
    ['quotation_id', 'name', 'rate', 'amount', 'due_on', 'stage'],
    it.payments.map((one) => [id, one.name, one.rate, one.amount, one.dueOn, one.stage]),
  );
}

export async function deleteQuotation(command: Command, job: string, number: number): Promise<void> {
  const { sql } = command;
  const { id } = await movable(sql, 'delete', job, number);
  await sql.run('DELETE FROM quotation WHERE id = $1', [id]);
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
  await tenderByNumber(sql, job);
  const quotation = await movable(sql, 'send', job, number);
  if (quotation.validUntil !== null && quotation.validUntil < input.on)
    throw fieldError('on', `It would be sent after the day it is valid until, ${quotation.validUntil}; move one of the two`);
  const { document, difference } = await quotationDocument(sql, job, number, input.on, quotation);
  if (document.lines.length === 0)
    throw new LedrinError('refused', `Estimate ${quotation.estimate} has no lines yet; there is nothing to offer`);
  if (difference !== 0)
    throw new LedrinError(
      'refused',
      `The payment schedule leaves ${displayExact(difference, document.digits)} of the price; change it until it comes to ${displayExact(document.total, document.digits)}`,
      [{ field: 'payments', message: 'does not come to the price' }],
    );
  await sql.run(`UPDATE quotation SET status = 'sent', sent_on = $1 WHERE id = $2`, [input.on, quotation.id]);
  await sql.run(
    `UPDATE estimate SET status = 'sent', sent_on = $1, reference = $2 WHERE status = 'draft' AND id = (SELECT estimate_id FROM quotation WHERE id = $3)`,
    [input.on, `Quotation ${number}`, quotation.id],
  );
  await offerDocument(sql, sending, actor, { job, kind: 'quotation', number: String(number), document }, input);
  command.note(`${job}/${number}`, { to: input.to, on: input.on });
}

/** Saves a text of the company's library of terms, by its name. */
export async function saveTerms(command: Command, input: TermsInput): Promise<void> {
  const { sql } = command;
  await sql.run('INSERT INTO terms_text (name, body) VALUES ($1, $2) ON CONFLICT (name) DO UPDATE SET body = excluded.body', [
    input.name,
    input.body,
  ]);
  command.note(input.name, input);
}

export async function removeTerms(command: Command, name: string): Promise<void> {
  const { sql } = command;
  if (!(await sql.get('SELECT 1 FROM terms_text WHERE name = $1', [name])))
    throw new LedrinError('not-found', `There are no terms called ${name}`);
  await sql.run('DELETE FROM terms_text WHERE name = $1', [name]);
  command.note(name, {});
}
