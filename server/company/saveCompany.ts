import type { Command } from '../ledger/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { CompanyInput, CostCodesInput, ClientInput } from '../../wire/company';
import { isCurrency } from '../book/format/currency';
import { bulkInsert } from '../db/sql';

/** Names the company whose books these are. Its currency is fixed once there are books. */
export async function saveCompany(command: Command, input: CompanyInput): Promise<void> {
  const { sql } = command;
  if (!isCurrency(input.currency))
    throw fieldError('currency', `"${input.currency}" is not an ISO 4217 currency code; write it as GBP`);
  const current = await sql.get<{ currency: string }>('SELECT currency FROM company');
  const used = await sql.get('SELECT 1 AS used FROM job LIMIT 1');
  if (current && used && current.currency !== input.currency)
    throw fieldError('currency', `The currency of the books is ${current.currency}; that cannot change once there are jobs`);
  await sql.run(
    `INSERT INTO company (id, name, currency, tax_name, tax_rate, year_start_month, address, job_number_pattern) VALUES (1, $1, $2, $3, $4, $5, $6, $7) ON CONFLICT (id) DO UPDATE
      SET name = excluded.name, currency = excluded.currency, tax_name = excluded.tax_name, tax_rate = excluded.tax_rate, year_start_month = excluded.year_start_month, address = excluded.address, job_number_pattern = excluded.job_number_pattern`,
    [input.name, input.currency, input.taxName, input.taxRate, input.yearStartMonth, input.address, input.jobNumberPattern],
  );
  command.note(input.name, input);
}

/** Adds a client. */
export async function addClient(command: Command, input: ClientInput): Promise<void> {
  const { sql } = command;
  if (await sql.get('SELECT id FROM client WHERE code = $1', [input.code]))
    throw new LedrinError('conflict', `There is a client ${input.code} already; choose another code`, [
      { field: 'code', message: 'already there' },
    ]);
  await sql.run(
    'INSERT INTO client (code, name, contact, email, phone, address, terms_days) VALUES ($1, $2, $3, $4, $5, $6, $7)',
    [input.code, input.name, input.contact, input.email, input.phone, input.address, input.termsDays],
  );
  command.note(input.code, input);
}

/** Adds cost codes, all or none. */
export async function addCostCodes(command: Command, { codes }: CostCodesInput): Promise<void> {
  const { sql } = command;
  const there = new Set((await sql.all<{ code: string }>('SELECT code FROM cost_code')).map((row) => row.code));
  const faults: Fault[] = [];
  codes.forEach(({ code }, i) => {
    if (there.has(code)) faults.push({ field: `codes.${i}.code`, message: `${code} is already there` });
    there.add(code);
  });
  if (faults.length > 0) throw new LedrinError('conflict', faults[0]!.message, faults);
  await bulkInsert(
    sql,
    'cost_code',
    ['code', 'description', 'unit'],
    codes.map((it) => [it.code, it.description, it.unit]),
  );
  command.note(codes.map((it) => it.code).join(' '), codes);
}

export function fieldError(field: string, message: string): LedrinError {
  return new LedrinError('bad-input', message, [{ field, message }]);
}
