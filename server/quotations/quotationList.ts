import { shape, t } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import type { QuotationInput, QuotationSummary } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { quotationDocument } from '../offers/clientDocuments';
import { jobByNumber } from '../jobs/jobByNumber';

/** A quotation as the books hold it. */
export interface LoadedQuotation extends QuotationInput {
  id: number;
  number: number;
  status: string;
  sentOn: string | null;
  answeredOn: string | null;
  answeredBy: string;
  savedBy: string;
  savedAt: string;
}

/** The quotations of a job, in the order they were made. */
export async function loadQuotations(sql: Reader, job: string): Promise<LoadedQuotation[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(
    shape({
      number: t.whole,
      status: t.text,
      version: t.whole,
      savedBy: t.text,
      savedAt: t.moment,
      title: t.text,
      estimate: t.cents,
      presentation: t.oneOf<'line' | 'section' | 'lump-sum'>(),
      contact: t.text,
      email: t.text,
      introduction: t.text,
      exclusions: t.text,
      terms: t.text,
      validUntil: t.orNull(t.day),
      id: t.whole,
      sentOn: t.orNull(t.day),
      answeredOn: t.orNull(t.day),
      answeredBy: t.text,
      quantities: t.whole,
      unitPrices: t.whole,
      alternates: t.text,
      payments: t.text,
    }),
    `SELECT q.id, q.number, e.number AS estimate, q.title, q.presentation, q.quantities, q.unit_prices AS unitPrices, q.contact, q.email, q.introduction, q.exclusions, q.terms,
      q.valid_until AS validUntil, q.status, q.sent_on AS sentOn, q.answered_on AS answeredOn, q.answered_by AS answeredBy, q.version, q.saved_by AS savedBy, q.saved_at AS savedAt,
      (SELECT json_group_array(json_object('name', name, 'amount', amount) ORDER BY id) FROM quotation_alternate WHERE quotation_id = q.id) AS alternates,
      (SELECT json_group_array(json_object('name', name, 'rate', rate, 'amount', amount, 'dueOn', due_on, 'stage', stage) ORDER BY id) FROM quotation_payment WHERE quotation_id = q.id) AS payments
      FROM quotation q JOIN estimate e ON e.id = q.estimate_id WHERE q.job_id = $1 ORDER BY q.number`,
    [id],
  );
  return rows.map((row) => ({
    ...row,
    quantities: row.quantities === 1,
    unitPrices: row.unitPrices === 1,
    alternates: JSON.parse(row.alternates) as QuotationInput['alternates'],
    payments: JSON.parse(row.payments) as QuotationInput['payments'],
  }));
}

export async function loadQuotation(sql: Reader, job: string, number: number): Promise<LoadedQuotation> {
  const found = (await loadQuotations(sql, job)).find((it) => it.number === number);
  if (!found) throw new LedrinError('not-found', `Job ${job} has no quotation ${number}`);
  return found;
}

export async function quotationList(sql: Reader, job: string): Promise<QuotationSummary[]> {
  const list: QuotationSummary[] = [];
  for (const it of await loadQuotations(sql, job)) {
    const { document } = await quotationDocument(sql, job, it.number, it.sentOn ?? '', it);
    const { number, title, estimate, status, validUntil, sentOn, answeredOn, answeredBy } = it;
    list.push({ number, title, estimate, status, total: document.total, validUntil, sentOn, answeredOn, answeredBy });
  }
  return list;
}

/** The company's library of terms. */
export function termsLibrary(sql: Reader): Promise<{ name: string; body: string }[]> {
  return sql.all(shape({ name: t.text, body: t.text }), 'SELECT name, body FROM terms_text ORDER BY name');
}
