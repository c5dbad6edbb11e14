import { payCodeOf } from '../../core/labour/payCodes';
import { piecePay } from '../../core/labour/priceTime';
import { paidRows, type PaidTime } from '../../core/labour/payroll';
import type { NamedPayrollRow } from '../../wire/payroll';
import { loadDigits } from '../company/company';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { EmployeeTable } from '../labour/models';
import { PAY_CODES, POSTED_OF_IDS } from '../labour/queries';
import { loadTerms } from '../labour/terms';

export type PostedLine = RowOf<typeof POSTED_OF_IDS>;

/** Posted lines as they are paid: their pay codes, and of piece work what the pieces come to. */
export async function paidTime(sql: Reader, lines: readonly PostedLine[]): Promise<(PostedLine & PaidTime)[]> {
  const codes = await sql.all(PAY_CODES);
  const { pieceRates } = await loadTerms(sql);
  const digits = await loadDigits(sql);
  return lines.map((it) => {
    const amount = it.units === null ? null : piecePay(it, pieceRates, digits);
    return {
      ...it,
      payCode: payCodeOf(codes, it),
      pieces: it.units === null || amount === null ? null : { units: it.units, amount: amount.payAmount },
    };
  });
}

/** Posted lines by their ids, in order. */
export function postedLines(sql: Reader, ids: readonly number[]): Promise<PostedLine[]> {
  return sql.all(POSTED_OF_IDS, [JSON.stringify(ids)]);
}

/** What lines come to for payroll, with whom each row pays. */
export async function namedRows(sql: Reader, lines: readonly PostedLine[]): Promise<NamedPayrollRow[]> {
  const people = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, it]));
  return paidRows(await paidTime(sql, lines), await loadDigits(sql)).map((row) => {
    const person = people.get(row.employee);
    return { ...row, name: person?.name ?? row.employee, payrollNumber: person?.payroll_number ?? '' };
  });
}
