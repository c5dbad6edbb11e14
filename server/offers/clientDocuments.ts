import { HEADING } from './queries';
import { at, present } from '../../core/errors/known';
import { createHash } from 'node:crypto';
import { displayDate } from '../../core/calendar/displayDate';
import { priceEstimate } from '../../core/estimates/estimate';
import { clientLines, paymentAmounts, type ClientDocument } from '../../core/offers/clientDocument';
import { LedrinError } from '../../core/errors/ledrinError';
import type { QuotationInput } from '../../wire/quotations';
import type { Reader } from '../db/sql';
import { loadChange } from '../changes/changeViews';
import { senderLines } from '../pdf/letterhead';
import { companyLogo, loadCompany, type Company } from '../company/company';
import { loadEstimate } from '../estimates/estimateViews';
import { jobByNumber } from '../jobs/jobByNumber';

/** SHA-256 of a text, in hexadecimal. */
export function contentHash(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}

type Heading = Pick<ClientDocument, 'company' | 'client' | 'job' | 'currency' | 'digits'>;

async function heading(sql: Reader, job: string): Promise<Heading> {
  const { id } = await jobByNumber(sql, job, 'job');
  const company = await loadCompany(sql);
  if (!company) throw new LedrinError('refused', 'Name the company first, in Set-up: a document goes out in its name');
  const row = present(await sql.get(HEADING, [id]));
  return {
    company: { name: company.name, address: company.address, ...(await senderOf(sql, company)) },
    client: { name: row.client, contact: row.contact },
    job: { number: job, name: row.name, site: row.site },
    currency: company.currency,
    digits: company.digits,
  };
}

/** What else stands under the company's name, and its logo, as far as there is any. */
async function senderOf(sql: Reader, company: Company): Promise<Pick<ClientDocument['company'], 'lines' | 'logo'>> {
  const lines = senderLines(company);
  const logo = await companyLogo(sql);
  return { ...(lines.length > 0 ? { lines } : {}), ...(logo === '' ? {} : { logo }) };
}

/** What the client reads of a quotation, and what its payment schedule leaves of the price. */
export async function quotationDocument(
  sql: Reader,
  job: string,
  number: number,
  dated: string,
  it: Omit<QuotationInput, 'version'>,
): Promise<{ document: ClientDocument; difference: number }> {
  const head = await heading(sql, job);
  const estimate = await loadEstimate(sql, job, it.estimate);
  const priced = priceEstimate(estimate, head.digits);
  const { price } = priced.totals;
  const { amounts, difference } = paymentAmounts(price, it.payments);
  return {
    difference: it.payments.length === 0 ? 0 : difference,
    document: {
      kind: 'quotation',
      title: `Quotation ${number}`,
      reference: it.title,
      dated,
      ...head,
      client: { ...head.client, contact: it.contact || head.client.contact },
      introduction: it.introduction,
      lines: clientLines(estimate.lines, priced, it, head.digits),
      total: price,
      alternates: it.alternates.map(({ name, amount }) => ({ name, amount })),
      exclusions: it.exclusions
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
      payments: it.payments.map((payment, i) => ({
        name: payment.name,
        when: payment.dueOn ? displayDate(payment.dueOn) : payment.stage,
        amount: at(amounts, i),
      })),
      days: null,
      validUntil: it.validUntil,
      terms: it.terms,
    },
  };
}

/** What the client reads of a change order: what it asks for, never what it costs. */
export async function changeDocument(sql: Reader, job: string, number: string): Promise<ClientDocument> {
  const head = await heading(sql, job);
  const change = await loadChange(sql, job, number);
  return {
    kind: 'change',
    title: `Change order ${change.number}`,
    reference: change.title,
    dated: change.issuedOn ?? change.raisedOn,
    ...head,
    introduction: change.reason,
    lines: change.priceLines.map((it) => ({
      line: it.line,
      section: it.section,
      description: it.description,
      quantity: it.quantity,
      unit: it.unit,
      unitPrice: null,
      amount: it.asked ?? it.amount,
    })),
    total: change.asked,
    alternates: [],
    exclusions: [],
    payments: [],
    days: change.daysAsked,
    validUntil: null,
    terms: '',
  };
}
