import { fieldError } from '../acts/refused';
import { CURRENCY, ANY_JOB, COST_CODES } from './queries';
import { at } from '../../core/errors/known';
import { ClientTable, CompanyTable, CostCodeTable } from './models';
import type { Command } from '../acts/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { CompanyInput, CostCodesInput, ClientInput } from '../../wire/company';
import { findCompany, loadCompany } from './company';
import { safeLogo } from './safeLogo';
import { isCurrency } from '../../core/money/currency';

/** Names the company whose books these are. Its currency is fixed once there are books. */
export async function saveCompany(command: Command, input: CompanyInput): Promise<void> {
  const { sql } = command;
  if (!isCurrency(input.currency))
    throw fieldError('currency', `"${input.currency}" is not an ISO 4217 currency code; write it as GBP`);
  const was = await findCompany(sql);
  const current = await sql.get(CURRENCY);
  const used = await sql.get(ANY_JOB);
  if (current && used && current.currency !== input.currency)
    throw fieldError('currency', `The currency of the books is ${current.currency}; that cannot change once there are jobs`);
  await sql.save(
    CompanyTable,
    [
      {
        id: 1,
        name: input.name,
        currency: input.currency,
        tax_name: input.taxName,
        tax_rate: input.taxRate,
        year_start_month: input.yearStartMonth,
        address: input.address,
        job_number_pattern: input.jobNumberPattern,
        registration_number: input.registrationNumber,
        tax_number: input.taxNumber,
        phone: input.phone,
        email: input.email,
        web: input.web,
        bank_details: input.bankDetails,
        time_zone: input.timeZone,
        site_days: input.siteDays,
      },
    ],
    ['id'],
  );
  command.note(input.name, { was: was ?? undefined, now: input });
}

/** Keeps a logo for the documents that are sent; no bytes: none. */
export async function saveLogo(command: Command, bytes: Uint8Array | null): Promise<void> {
  const made = bytes === null ? { url: '' } : safeLogo(bytes);
  if ('fault' in made) throw fieldError('file', made.fault);
  await loadCompany(command.sql);
  await command.sql.update(CompanyTable, { id: 1 }, { logo: made.url });
  command.note('company', { logo: made.url === '' ? 'removed' : 'changed' });
}

/** Adds a client. */
export async function addClient(command: Command, input: ClientInput): Promise<void> {
  const { sql } = command;
  if (await sql.findOne(ClientTable, { code: input.code }))
    throw new LedrinError('conflict', `There is a client ${input.code} already; choose another code`, [
      { field: 'code', message: 'already there' },
    ]);
  await sql.insert(ClientTable, {
    code: input.code,
    name: input.name,
    contact: input.contact,
    email: input.email,
    phone: input.phone,
    address: input.address,
    terms_days: input.termsDays,
    never_certifies: input.neverCertifies ? 1 : 0,
  });
  command.note(input.code, input);
}

/** Adds cost codes, all or none. */
export async function addCostCodes(command: Command, { codes }: CostCodesInput): Promise<void> {
  const { sql } = command;
  const there = new Set((await sql.all(COST_CODES)).map((row) => row.code));
  const faults: Fault[] = [];
  codes.forEach(({ code }, i) => {
    if (there.has(code)) faults.push({ field: `codes.${i}.code`, message: `${code} is already there` });
    there.add(code);
  });
  if (faults.length > 0) throw new LedrinError('conflict', at(faults, 0).message, faults);
  await sql.insertAll(
    CostCodeTable,
    codes.map((it) => ({ code: it.code, description: it.description, unit: it.unit })),
  );
  command.note(codes.map((it) => it.code).join(' '), codes);
}
