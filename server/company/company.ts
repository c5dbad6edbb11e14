import { NEWEST_ENTRY } from './queries';
import { CompanyTable } from './models';
import { LedrinError } from '../../core/errors/ledrinError';
import { addDays, lastDay, periodOf, type PlainDate } from '../../core/calendar/plainDate';
import { currencyDigits } from '../../core/money/currency';
import type { Company } from '../../wire/company';
import type { Reader } from '../db/sql';

export type { Company };

/** The company whose books these are; null in an empty database. */
export async function findCompany(sql: Reader): Promise<Company | null> {
  const row = await sql.findOne(CompanyTable, { id: 1 });
  if (!row) return null;
  return {
    name: row.name,
    currency: row.currency,
    digits: currencyDigits(row.currency),
    taxName: row.tax_name,
    taxRate: row.tax_rate,
    yearStartMonth: row.year_start_month,
    address: row.address,
    jobNumberPattern: row.job_number_pattern,
    registrationNumber: row.registration_number,
    taxNumber: row.tax_number,
    phone: row.phone,
    email: row.email,
    web: row.web,
    bankDetails: row.bank_details,
    hasLogo: row.logo !== '',
    timeZone: row.time_zone,
    siteDays: row.site_days,
  };
}

/** The time zone the company's day is of; empty: the server's own. */
export async function timeZoneOf(sql: Reader): Promise<string> {
  return (await sql.findOne(CompanyTable, { id: 1 }))?.time_zone ?? '';
}

/** The company whose books these are. Throws refused in an empty database: without its currency no amount can be read or shown. */
export async function loadCompany(sql: Reader): Promise<Company> {
  const company = await findCompany(sql);
  if (company) return company;
  throw new LedrinError('refused', 'Name the company first, in Set-up: its currency is the currency of every amount');
}

/** The logo as a data URL; empty where there is none. */
export async function companyLogo(sql: Reader): Promise<string> {
  return (await sql.findOne(CompanyTable, { id: 1 }))?.logo ?? '';
}

/** Decimals of the company's currency. */
export async function loadDigits(sql: Reader): Promise<number> {
  return (await loadCompany(sql)).digits;
}

/** The newest day that has a cost, certification, release or receipt; null where there is none. */
export async function newestEntryDate(sql: Reader): Promise<PlainDate | null> {
  const row = await sql.get(NEWEST_ENTRY);
  return row?.newest ?? null;
}

/** docs/book.md: without a date, the last day of the newest month with entries; `today`'s month where there are none. */
export async function usualAsOf(sql: Reader, today: PlainDate): Promise<PlainDate> {
  return lastDay(periodOf((await newestEntryDate(sql)) ?? today));
}

/** The day that is worked: today; of books that lie ahead of it, as a sample does, the last of their newest month. */
export async function usualDay(sql: Reader, today: PlainDate): Promise<PlainDate> {
  const newest = await newestEntryDate(sql);
  return newest !== null && newest > addDays(today, DAYS_AHEAD) ? usualAsOf(sql, today) : today;
}
const DAYS_AHEAD = 31;
