import { isTimeZone } from '../../../core/calendar/dayIn';
import { isJobNumberPattern } from '../../../core/jobs/jobNumber';
import { isCurrency } from '../../../core/money/currency';
import { bookFile } from '../../bookFormat/bookFile';
import { days, integer, longText, oneOf, percent, REQUIRED, text, yesNo, type ReadRow } from '../../bookFormat/columns';
import { shared, type BookCheck } from '../../bookFormat/bookCheck';
import { safeLogo } from '../safeLogo';
import { ClientTable, CompanyTable, CostCodeTable, PersonTable, VendorTable } from '../models';

export const company = bookFile({
  name: 'company',
  columns: {
    name: text(REQUIRED),
    currency: text(REQUIRED, 'ISO 4217'),
    tax_name: text(),
    tax_percent: percent(),
    year_start_month: integer(1, 12)(),
    address: text(),
    job_number_pattern: text('`YY-###`: one run of `#`'),
    registration_number: text(),
    tax_number: text(),
    phone: text(),
    email: text(),
    web: text(),
    time_zone: text('such as Europe/London; empty: the server’s own'),
    site_days: integer(1, 365)('how long a phone of the site stays signed in; empty: 30'),
    bank_details: text(),
    logo: longText('a PNG or SVG as a data URL'),
  },
  key: [],
  keyNote: 'one row',
  query:
    'SELECT id, name, currency, tax_name, tax_rate AS tax_percent, year_start_month, address, job_number_pattern, registration_number, tax_number, phone, email, web, time_zone, site_days, bank_details, logo FROM company',
  check(row, book) {
    const logo = row.logo ? logoFault(row.logo) : null;
    if (logo !== null) book.fault(company, row, 'logo', logo);
    if (typeof row.currency === 'string' && !isCurrency(row.currency))
      book.fault(company, row, 'currency', `"${row.currency}" is not an ISO 4217 currency code such as GBP`);
    if (row.time_zone && !isTimeZone(row.time_zone))
      book.fault(company, row, 'time_zone', `"${row.time_zone}" is not a time zone such as Europe/London`);
    if (row.job_number_pattern && !isJobNumberPattern(row.job_number_pattern))
      book.fault(
        company,
        row,
        'job_number_pattern',
        `"${row.job_number_pattern}" is not a pattern such as YY-###: it has one run of #`,
      );
  },
  checkAll(rows, book) {
    const there = book.own(companyThere).company;
    for (const row of rows) {
      if (row !== rows[0]) book.fault(company, row, 'name', 'duplicate key: a book has one company');
      else if (there && (row.name !== there.name || row.currency !== there.currency))
        book.fault(company, row, 'name', 'duplicate key: the database has another company already');
    }
    const shape = book.shapeOf(company);
    if (rows.length === 0 && !there && (!shape || (shape.readable && shape.missingColumns.length === 0)))
      book.fault(company, { row: 1 }, '', 'there is no company in company.csv, and the database has none yet');
  },
  async save([row], { sql, book }) {
    if (!row || book.own(companyThere).company) return;
    await sql.insert(CompanyTable, {
      id: 1,
      name: row.name,
      currency: row.currency,
      tax_name: row.tax_name ?? '',
      tax_rate: row.tax_percent ?? 0,
      year_start_month: row.year_start_month ?? 1,
      address: row.address ?? '',
      job_number_pattern: row.job_number_pattern ?? '',
      time_zone: row.time_zone ?? '',
      site_days: row.site_days ?? 30,
      registration_number: row.registration_number ?? '',
      tax_number: row.tax_number ?? '',
      phone: row.phone ?? '',
      email: row.email ?? '',
      web: row.web ?? '',
      bank_details: row.bank_details ?? '',
      logo: row.logo ?? '',
    });
  },
});

/** Why a data URL is no logo; null where it is one. */
function logoFault(url: string): string | null {
  const base64 = /^data:image\/(?:png|svg\+xml);base64,([A-Za-z0-9+/=]+)$/.exec(url)?.[1];
  if (base64 === undefined) return 'is not a PNG or SVG as a data URL';
  const made = safeLogo(Buffer.from(base64, 'base64'));
  return 'fault' in made ? made.fault : null;
}

/** The company of the database, read before any file; null where it has none. */
export const companyThere = shared(() => ({ company: null as { name: string; currency: string; tax_rate: number } | null }));

/** The default where a job's tax cell is empty: the company's, else 0. */
export function bookTaxRate(book: BookCheck): number {
  return book.rowsOf(company)[0]?.tax_percent ?? book.own(companyThere).company?.tax_rate ?? 0;
}

const CLOSED = yesNo('closed to new use');
const PARTY = { contact: text(), email: text(), phone: text(), address: text(), terms_days: days(), closed: CLOSED };

function partyOf(row: Pick<ReadRow<typeof PARTY>, keyof typeof PARTY>) {
  const { contact, email, phone, address, terms_days, closed } = row;
  return {
    contact: contact ?? '',
    email: email ?? '',
    phone: phone ?? '',
    address: address ?? '',
    terms_days: terms_days ?? null,
    closed: closed ? 1 : 0,
  };
}

export const customers = bookFile({
  name: 'customers',
  columns: {
    customer: text(REQUIRED),
    name: text(REQUIRED),
    ...PARTY,
    never_certifies: yesNo('what is applied for stands, and is billed in one act'),
  },
  key: ['customer'],
  called: 'customer',
  query: 'SELECT id, code AS customer, name, contact, email, phone, address, terms_days, closed, never_certifies FROM client',
  save: (rows, into): Promise<void> =>
    into.keyed(
      customers,
      ClientTable,
      rows,
      (row) => [row.customer],
      (row) => ({ code: row.customer, name: row.name, ...partyOf(row), never_certifies: row.never_certifies ? 1 : 0 }),
    ),
});

export const vendors = bookFile({
  name: 'vendors',
  columns: { vendor: text(REQUIRED), name: text(REQUIRED), kind: oneOf(['supplier', 'subcontractor'])(), ...PARTY },
  key: ['vendor'],
  called: 'vendor',
  query: 'SELECT id, code AS vendor, name, kind, contact, email, phone, address, terms_days, closed FROM vendor',
  save: (rows, into): Promise<void> =>
    into.keyed(
      vendors,
      VendorTable,
      rows,
      (row) => [row.vendor],
      (row) => ({ code: row.vendor, name: row.name, kind: row.kind ?? ('' as const), ...partyOf(row) }),
    ),
});

export const costCodes = bookFile({
  name: 'cost_codes',
  columns: { cost_code: text(REQUIRED), description: text(REQUIRED), unit: text(), closed: CLOSED },
  key: ['cost_code'],
  called: 'cost code',
  query: 'SELECT id, code AS cost_code, description, unit, closed FROM cost_code',
  save: (rows, into): Promise<void> =>
    into.keyed(
      costCodes,
      CostCodeTable,
      rows,
      (row) => [row.cost_code],
      (row) => ({ code: row.cost_code, description: row.description, unit: row.unit ?? '', closed: row.closed ? 1 : 0 }),
    ),
});

/** Our own people, as far as more is known of them than the job that names them. */
export const people = bookFile({
  name: 'people',
  columns: { person: text(REQUIRED, 'a name, as jobs name them'), role: text(), email: text(), phone: text(), closed: CLOSED },
  key: ['person'],
  called: 'person',
  existing: 'SELECT id, name AS person FROM person',
  query: `SELECT id, name AS person, role, email, phone, closed FROM person
    WHERE role <> '' OR email <> '' OR phone <> '' OR closed = 1 OR NOT EXISTS (SELECT 1 FROM job WHERE person.name IN (job.manager, job.estimator))
      AND NOT EXISTS (SELECT 1 FROM job_person t WHERE t.side = 'team' AND t.name = person.name)`,
  save: (rows, into): Promise<void> =>
    into.keyed(
      people,
      PersonTable,
      rows,
      (row) => [row.person],
      (row) => ({
        name: row.person,
        role: row.role ?? '',
        email: row.email ?? '',
        phone: row.phone ?? '',
        closed: row.closed ? 1 : 0,
      }),
    ),
});
