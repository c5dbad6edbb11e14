import { inSheetOrder } from '../../../core/labour/sheets';
import { beyondTheDay, timeFaults } from '../../../core/labour/timeFaults';
import { cutTime } from '../../../core/labour/overtime';
import { PAY_CLASSES, type PayClass } from '../../../core/labour/payClass';
import { priceTime, whyUnpriced } from '../../../core/labour/priceTime';
import { present } from '../../../core/errors/known';
import { refuse } from '../../../core/refusals/refusal';
import { chargingOf } from '../../charging/book/chargeColumns';
import { chargingOfBook } from '../../charging/book/chargingOfBook';
import { marksOfTime } from '../../charging/marks';
import { type BookCheck } from '../../bookFormat/bookCheck';
import type { BookAct, BookFile } from '../../bookFormat/bookFile';
import { jobs } from '../../jobs/bookFiles';
import { MOST_DIGITS } from '../../bookFormat/cells';
import { isWhole } from '../../bookFormat/columns';
import { burdens, employees, overtimeRules, payRates, pieceRates } from '../bookFiles';
import { EmployeeTable } from '../models';
import { POSTED_TIME } from '../queries';
import { alteredTime, wouldAlter } from '../alteredTime';
import { TERM_FILES, withTermsOf } from './bookTerms';
import { loadTerms, type Terms } from '../terms';
import { gatherTime, markOfTarget } from './chargingOfTime';
import { labourOfBook, timeKey, type PlannedTime, type Price } from './labourOfBook';
import type { TimeFile, TimeRow } from './timeColumns';

/** Reads what the checks of labour need of the database. */
export async function loadLabourOf(file: TimeFile, book: BookCheck): Promise<void> {
  const files: readonly BookFile[] = [file, employees, payRates, pieceRates, burdens, overtimeRules];
  if (files.every((it) => book.rowsOf(it).length === 0)) return;
  const own = book.own(labourOfBook);
  own.terms = await loadTerms(book.sql);
  own.posted = await book.sql.all(POSTED_TIME);
  own.marks = await marksOfTime(
    book.sql,
    own.posted.map((it) => it.id),
  );
  for (const it of await book.sql.find(EmployeeTable, {}))
    own.employees.set(it.code, { name: it.name, wageClass: it.wage_class, startsOn: it.starts_on, endsOn: it.ends_on });
}

/** New terms that would alter what is posted are refused, and name the lines. */
function refuseAltered(book: BookCheck, terms: Terms): void {
  const { terms: before, posted } = book.own(labourOfBook);
  const blamed = new Map<string, { file: BookFile; row: number; lines: string[] }>();
  for (const { line, by } of alteredTime(posted, present(before), terms, book.digits ?? MOST_DIGITS))
    for (const { list, term } of by) {
      if (!('row' in term)) continue;
      const [file, row] = [TERM_FILES[list], Number(term.row)];
      const lines = [...(blamed.get(`${list} ${row}`)?.lines ?? []), line];
      blamed.set(`${list} ${row}`, { file, row, lines });
    }
  for (const { file, row, lines } of blamed.values()) book.fault(file, { row }, 'from', wouldAlter(lines));
}

/** Checks the lines of a book and works out what they are cut into and what they cost. */
export function planTime(file: TimeFile, rows: readonly TimeRow[], book: BookCheck): void {
  const own = book.own(labourOfBook);
  // Nothing was read of a book without labour.
  if (own.terms === null) return;
  const terms = withTermsOf(book, own.terms);
  for (const it of book.rowsOf(employees))
    if (it.employee)
      own.employees.set(it.employee, {
        name: it.name ?? '',
        wageClass: it.wage_class ?? '',
        startsOn: it.starts_on ?? null,
        endsOn: it.ends_on ?? null,
      });
  refuseAltered(book, terms);
  const whole = rows.filter((it) => isWhole(it) && it.sheet && it.line && it.employee && it.dated && it.hours !== null);
  const good = whole.filter((row) => checkLine(book, file, row));
  checkDays(book, file, good);
  const lines = good.toSorted((a, b) => inSheetOrder(nameOf(a), nameOf(b)));
  for (const row of lines.filter((it) => it.status && it.status !== 'posted'))
    own.planned.push({
      row,
      pay: row.pay ?? null,
      hours: row.hours ?? 0,
      split: false,
      price: null,
      reverses: null,
      charging: chargingOf(row),
    });
  planPosted(
    book,
    file,
    lines.filter((it) => !it.status || it.status === 'posted'),
    terms,
  );
  // As they stand in the file, whatever they were worked out after: a book goes out and in again the same.
  gatherTime(book, file);
  const posted = new Set(own.planned.map((it) => it.row));
  // What an invoice took of a line that is at fault is not known.
  for (const row of rows) if (!posted.has(row)) book.own(chargingOfBook).unknown.add(row.job ?? '');
  const rank = (it: PlannedTime) => (it.pay === null ? 0 : PAY_CLASSES.indexOf(it.pay));
  own.planned.sort((a, b) => a.row.row - b.row.row || rank(a) - rank(b));
}

/** What posted time of the book does that the company may want approved first, on jobs the database has: by what it costs, and pays. */
export function actsOfTime(book: BookCheck): BookAct[] {
  const posted = book
    .own(labourOfBook)
    .planned.flatMap(({ row, price, reverses }) =>
      price && !reverses && row.job && book.there(jobs, row.job) ? [{ row, price }] : [],
    );
  const handed = posted.filter(({ row }) => row.handed_over);
  const cost = posted.reduce((sum, { price }) => sum + price.payAmount + price.burden, 0);
  const act = (kind: BookAct['kind'], column: string, of: typeof posted, amount: number) =>
    of[0] ? [{ row: of[0].row, column, kind, amount }] : [];
  return [
    ...act('approve-time', 'status', posted, cost),
    ...act('post-time', 'status', posted, cost),
    ...act(
      'hand-over',
      'handed_over',
      handed,
      handed.reduce((sum, { price }) => sum + price.payAmount, 0),
    ),
  ];
}

const nameOf = (row: TimeRow) => ({ sheet: row.sheet ?? '', line: row.line ?? '' });

/** What is wrong with a line by itself; false where it cannot be worked with. */
function checkLine(book: BookCheck, file: TimeFile, row: TimeRow): boolean {
  const employee = book.own(labourOfBook).employees.get(row.employee ?? '');
  if (!employee) return false;
  const { dated } = entered(row);
  const faults = timeFaults(entered(row), employee, Boolean(row.reverses)).map(
    ({ at, message }) => [at === 'costCode' ? 'cost_code' : at, message] as const,
  );
  const own: (readonly [column: string, message: string])[] = [];
  if (row.posted_on && row.posted_on < dated) own.push(['posted_on', `${row.posted_on} is before dated, ${dated}`]);
  if (row.handed_over && row.status && row.status !== 'posted') own.push(['handed_over', 'only a posted line is handed over']);
  if (row.returned && row.status !== 'submitted') own.push(['returned', 'only a submitted line is returned']);
  const isCharged = row.charge === 'yes' || row.charge === 'hold';
  if (isCharged && row.job === null) book.refuse(file, row, refuse('charge-without-job', 'charge', {}));
  if (row.daywork_invoice && row.status && row.status !== 'posted')
    own.push(['daywork_invoice', 'only a posted line is invoiced']);
  for (const [column, message] of [...faults, ...own]) book.fault(file, row, column, message);
  return faults.length + own.length === 0;
}

const entered = (row: TimeRow) => ({
  employee: row.employee ?? '',
  dated: row.dated ?? '',
  job: row.job ?? '',
  costCode: row.cost_code ?? '',
  department: row.department ?? '',
  hours: row.hours ?? 0,
  units: row.units ?? null,
});

/** Nobody works more than a day has hours; what is posted already counts. */
function checkDays(book: BookCheck, file: TimeFile, rows: readonly TimeRow[]): void {
  const lines = rows.map((row) => ({ ...entered(row), row }));
  for (const { line, message } of beyondTheDay(lines, book.own(labourOfBook).posted))
    book.fault(file, line.row, 'hours', message);
}

interface Reversed {
  of: { id: number } | { key: string };
  dated: string;
  pay: PayClass;
  hours: number;
  units: number | null;
  employee: string;
}

function planPosted(book: BookCheck, file: TimeFile, lines: readonly TimeRow[], terms: Terms): void {
  const own = book.own(labourOfBook);
  const targets = reversible(book, lines);
  const reversing = new Map<TimeRow, Reversed>();
  const used = new Set<string>();
  for (const row of lines.filter((it) => it.reverses)) {
    const target = reversedBy(book, file, row, targets, used);
    if (target) reversing.set(row, target);
  }
  const worked = lines.filter((it) => !it.reverses || reversing.has(it));
  const prices = new Map<string, Price>(
    own.posted.map(({ sheet, line, pay, ...it }) => [timeKey(sheet, line, pay), { ...it, rung: it.rung as Price['rung'] }]),
  );
  const cut = cutTime(
    worked.map((row) => ({
      row,
      employee: row.employee ?? '',
      dated: row.dated ?? '',
      hours: row.hours ?? 0,
      hasUnits: row.units !== null,
      pay: reversing.get(row)?.pay ?? row.pay ?? null,
      reversesOn: reversing.get(row)?.dated ?? null,
    })),
    own.posted,
    terms.rules,
  );
  const parts = new Map([...cut].map(([line, of]) => [line.row, of]));
  const named = new Set(lines.flatMap((it) => (it.pay ? [timeKey(it.sheet ?? '', it.line ?? '', it.pay)] : [])));
  // What is reversed has its price before what reverses it.
  for (const row of [...worked.filter((it) => !reversing.has(it)), ...worked.filter((it) => reversing.has(it))]) {
    const target = reversing.get(row);
    for (const [pay, hours] of parts.get(row) ?? []) {
      const price = target
        ? turned(prices.get('id' in target.of ? (row.reverses ?? '') : target.of.key))
        : pricedOrFault(book, file, row, { pay, hours }, terms);
      if (!price) continue;
      // A line that is cut takes more names than its own.
      const key = timeKey(row.sheet ?? '', row.line ?? '', pay);
      if (row.pay === null && (named.has(key) || book.there(file, row.sheet, row.line, pay))) {
        book.fault(file, row, 'pay', `duplicate key: ${key} is already there`);
        continue;
      }
      named.add(key);
      prices.set(key, price);
      const charging = target ? markOfTarget(book, target.of, lines) : chargingOf(row);
      own.planned.push({ row, pay, hours, split: row.pay === null && !target, price, reverses: target?.of ?? null, charging });
    }
  }
}

type Named = readonly [key: string, line: Reversed & { taken: boolean }];

/** Lines that can be reversed, by their name: those of the database, and those of the book whose pay is given. */
function reversible(book: BookCheck, lines: readonly TimeRow[]): Map<string, Reversed & { taken: boolean }> {
  const there = book
    .own(labourOfBook)
    .posted.map(
      ({ id, sheet, line, pay, dated, hours, units, employee, reversedBy: by, reverses }) =>
        [
          timeKey(sheet, line, pay),
          { of: { id }, dated, pay, hours, units, employee, taken: by !== null || reverses !== null },
        ] as const,
    );
  const given = lines.flatMap((row): Named[] => {
    if (!row.pay || row.reverses) return [];
    const key = timeKey(row.sheet ?? '', row.line ?? '', row.pay);
    const it = { of: { key }, dated: row.dated ?? '', pay: row.pay, hours: row.hours ?? 0, units: row.units ?? null };
    return [[key, { ...it, employee: row.employee ?? '', taken: false }]];
  });
  return new Map<string, Reversed & { taken: boolean }>([...there, ...given]);
}

function reversedBy(
  book: BookCheck,
  file: TimeFile,
  row: TimeRow,
  targets: ReadonlyMap<string, Reversed & { taken: boolean }>,
  used: Set<string>,
): Reversed | null {
  const key = row.reverses ?? '';
  const target = targets.get(key);
  const fault = (column: string, message: string): null => {
    book.fault(file, row, column, message);
    return null;
  };
  if (!target) return fault('reverses', `there is no posted line ${key} whose pay is given`);
  if (target.taken || used.has(key)) return fault('reverses', `${key} is reversed already, or reverses a line itself`);
  if (target.employee !== row.employee) return fault('employee', `${key} is of ${target.employee}`);
  if (row.pay && row.pay !== target.pay) return fault('pay', `${key} is ${target.pay}`);
  if (row.hours !== -target.hours) return fault('hours', `expected the hours of ${key}, turned`);
  if ((row.units ?? null) !== (target.units === null ? null : -target.units))
    return fault('units', `expected the units of ${key}, turned`);
  used.add(key);
  return target;
}

const turned = (price: Price | undefined): Price | null =>
  price ? { ...price, payAmount: 0 - price.payAmount, burden: 0 - price.burden } : null;

function pricedOrFault(
  book: BookCheck,
  file: TimeFile,
  row: TimeRow,
  { pay, hours }: { pay: PayClass; hours: number },
  terms: Terms,
): Price | null {
  const employee = book.own(labourOfBook).employees.get(row.employee ?? '');
  const price = priceTime(
    {
      employee: row.employee ?? '',
      dated: row.dated ?? '',
      job: row.job ?? '',
      section: row.section ?? '',
      costCode: row.cost_code ?? '',
      workKind: row.work_kind ?? '',
      wageClass: row.wage_class ?? '',
      employeeClass: employee?.wageClass ?? '',
      pay,
      hours,
      units: row.units ?? null,
    },
    terms,
    book.digits ?? MOST_DIGITS,
  );
  if (typeof price !== 'string') return price;
  const column = price === 'no-rate' ? 'employee' : price === 'no-piece-rate' || row.units !== null ? 'units' : 'hours';
  const line = { costCode: row.cost_code ?? '', dated: row.dated ?? '' };
  book.fault(file, row, column, whyUnpriced(price, line, employee?.name ?? row.employee ?? ''));
  return null;
}
