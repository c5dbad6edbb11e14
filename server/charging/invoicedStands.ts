import { chargeOf } from '../../core/charging/charge';
import { LedrinError } from '../../core/errors/ledrinError';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { loadChargeTerms } from './chargeTerms';
import { entryToCharge } from './marks';
import { INVOICED_ENTRIES } from './queries';

const NAMED = 5;

/** Entries on invoices that are not credited which would be charged otherwise now. */
export async function invoicedOtherwise(sql: Reader) {
  const [terms, digits] = [await loadChargeTerms(sql), await loadDigits(sql)];
  return (await sql.all(INVOICED_ENTRIES)).filter((it) => chargeOf(entryToCharge(it), terms, digits).charge !== it.charge);
}

/** Throws refused where entries on invoices that are not credited would be charged otherwise now: what is invoiced keeps its charge. */
export async function assertInvoicedStands(sql: Reader, field: string): Promise<void> {
  const other = await invoicedOtherwise(sql);
  if (other.length === 0) return;
  const jobs = [...new Set(other.map((it) => it.job))];
  const named = `${jobs.slice(0, NAMED).join(', ')}${jobs.length > NAMED ? ` and ${jobs.length - NAMED} more` : ''}`;
  const message = `This would alter what ${other.length === 1 ? '1 invoiced entry is' : `${other.length} invoiced entries are`} charged at, on ${jobs.length === 1 ? 'job' : 'jobs'} ${named}; credit the invoices in full first, or let it count from a later day`;
  throw new LedrinError('refused', message, [{ field, message }]);
}
