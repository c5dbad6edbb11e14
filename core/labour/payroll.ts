import { comparePlain } from '../costs/costType';
import { at } from '../errors/known';
import { grouped } from '../lists/grouped';
import type { Cents } from '../money/cents';
import type { Hours, Quantity } from '../money/rate';
import type { UnitCost } from '../prices/unitCost';
import { PAY_CLASSES, payFor, type PayClass } from './payClass';

/** A posted line of time as it is paid. */
export interface PaidTime {
  employee: string;
  payCode: string;
  /** Empty: overhead. */
  job: string;
  /** Before the multiplier; of a piece where it is paid by the piece. */
  rate: UnitCost;
  pay: PayClass;
  hours: Hours;
  payAmount: Cents;
  /** What the pieces alone come to; null where it is not piece work. */
  pieces: { units: Quantity; amount: Cents } | null;
}

/** Hours and pay of one employee, pay code, job and rate. */
export interface PayrollRow extends Omit<PaidTime, 'payAmount' | 'pieces' | 'pay'> {
  amount: Cents;
  /** Pieces among them, and what was paid beyond what they come to, because the hours come to more. */
  units: Quantity;
  topUp: Cents;
}

/** The same as payroll is handed over: classes and piece work apart, so that a row can be worked out again. */
export interface PaidRow extends PayrollRow {
  pay: PayClass;
  isPieceWork: boolean;
  /** The amount less what hours × rate × multiplier comes to: each line was rounded by itself. Nothing of piece work. */
  rounding: Cents;
}

const KEY = ({ employee, payCode, job, rate }: PaidTime) => JSON.stringify([employee, payCode, job, rate]);
const byName = (a: PayrollRow, b: PayrollRow) =>
  comparePlain(a.employee, b.employee) || comparePlain(a.payCode, b.payCode) || comparePlain(a.job, b.job) || a.rate - b.rate;

function rowOf(of: readonly PaidTime[]): PayrollRow {
  const { employee, payCode, job, rate } = at(of, 0);
  const sum = (value: (it: PaidTime) => number) => of.reduce((total, it) => total + value(it), 0);
  return {
    employee,
    payCode,
    job,
    rate,
    hours: sum((it) => it.hours),
    amount: sum((it) => it.payAmount),
    units: sum((it) => it.pieces?.units ?? 0),
    topUp: sum((it) => (it.pieces ? it.payAmount - it.pieces.amount : 0)),
  };
}

/** What is to be paid, without burden: by employee, pay code, job and rate, in that order (docs/book.md, report payroll). */
export function payrollRows(lines: readonly PaidTime[]): PayrollRow[] {
  return [...grouped(lines, KEY).values()].map(rowOf).sort(byName);
}

/** What is handed over to payroll. A line and its correction that come to nothing together make no row. */
export function paidRows(lines: readonly PaidTime[], digits: number): PaidRow[] {
  const rows = [...grouped(lines, (it) => `${KEY(it)} ${it.pay} ${it.pieces === null ? '' : 'pieces'}`).values()];
  return rows
    .map((of): PaidRow => {
      const [row, { pay, pieces }] = [rowOf(of), at(of, 0)];
      const isPieceWork = pieces !== null;
      return { ...row, pay, isPieceWork, rounding: isPieceWork ? 0 : row.amount - payFor(row.hours, row.rate, pay, digits) };
    })
    .filter((it) => it.hours !== 0 || it.amount !== 0 || it.units !== 0)
    .sort(
      (a, b) =>
        byName(a, b) || PAY_CLASSES.indexOf(a.pay) - PAY_CLASSES.indexOf(b.pay) || Number(a.isPieceWork) - Number(b.isPieceWork),
    );
}

/** What a column of the file for payroll can hold. */
export const PAYROLL_FIELDS = {
  employee: 'Employee',
  'payroll-number': 'Payroll number',
  name: 'Name',
  'pay-code': 'Pay code',
  job: 'Job',
  hours: 'Hours',
  rate: 'Rate',
  multiplier: 'Multiplier',
  rounding: 'Rounding',
  amount: 'Amount',
  units: 'Pieces',
  'top-up': 'Top-up',
  from: 'First day',
  to: 'Last day',
  'hand-over': 'Hand-over',
} as const;
export type PayrollField = keyof typeof PAYROLL_FIELDS;
export const PAYROLL_FIELD_NAMES = Object.keys(PAYROLL_FIELDS) as [PayrollField, ...PayrollField[]];

/** A column of the file: its title there, and what it holds. */
export interface PayrollColumn {
  title: string;
  field: PayrollField;
}

/** The columns until a company sets its own. */
export const USUAL_COLUMNS: readonly PayrollColumn[] = (
  ['payroll-number', 'name', 'pay-code', 'job', 'hours', 'rate', 'multiplier', 'units', 'top-up', 'rounding', 'amount'] as const
).map((field) => ({ title: PAYROLL_FIELDS[field], field }));

/** Columns as one text, `Title=field; Title=field`; what they are saved as. */
export function columnsText(columns: readonly PayrollColumn[]): string {
  return columns.map(({ title, field }) => `${title}=${field}`).join('; ');
}

/** Reads columns; null where the text is none. */
export function readColumns(text: string): PayrollColumn[] | null {
  const columns = text
    .split(';')
    .map((it) => it.trim())
    .filter(Boolean)
    .map((it) => {
      const at = it.lastIndexOf('=');
      const [title, field] = [it.slice(0, at).trim(), it.slice(at + 1).trim()];
      return at > 0 && Object.hasOwn(PAYROLL_FIELDS, field) ? { title, field: field as PayrollField } : null;
    });
  return columns.includes(null) ? null : (columns as PayrollColumn[]);
}
