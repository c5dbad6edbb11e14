import {
  LABOUR_LISTS,
  LABOUR_LIST_NAMES,
  changesOf,
  isLabourList,
  type LabourList,
  type ListChange,
  type ListRow,
} from '../../core/labour/lists';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { LabourListInput, LabourListRow } from '../../wire/labourLists';
import { BookCheck } from '../bookFormat/bookCheck';
import { FaultList } from '../../core/errors/bookFaults';
import { BookSave } from '../bookFormat/bookSave';
import type { BookFile } from '../bookFormat/bookFile';
import type { Columns, ReadRow, Row } from '../bookFormat/columns';
import { rowsOfFile } from '../bookFormat/rowsOfFile';
import { loadDigits } from '../company/company';
import { assertInvoicedStands } from '../charging/invoicedStands';
import { recharge } from '../charging/marks';
import { CostLines } from '../costs/costEntries';
import type { NewRow, Table } from '../db/fields';
import type { Reader, Sql } from '../db/sql';
import { assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { EVER } from '../../core/labour/payRates';
import { alteredTime, wouldAlter } from './alteredTime';
import { atEmployees, ratesAfter, withHourlyRates, withRatesKept } from './hourlyRates';
import { SAVED_LISTS } from './savedLists';
import { TERM_FILES, TERMS_OF_ROWS } from './timeBook/bookTerms';
import { EMPLOYEE_DAYS, EMPLOYEE_USES, POSTED_SINCE, USED_WAGE_CLASSES, WORK_KIND_USES } from './queries';
import { loadTerms, type Terms } from './terms';

const camel = (column: string) => column.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase());

/** A list as it is saved, with what its next change is compared to. */
export async function labourList(sql: Reader, name: string): Promise<{ seen: string; rows: LabourListRow[] }> {
  if (!isLabourList(name)) throw new LedrinError('not-found', `There is no list ${name.slice(0, 40)} of labour`);
  const rows = await savedRows(sql, name);
  return { seen: digestOf(rows), rows: rows as unknown as LabourListRow[] };
}

/** The rows of a list as they travel: an empty text is a cell left out. Employees have beside them what they cost an hour. */
async function savedRows(sql: Reader, name: LabourList): Promise<ListRow[]> {
  const rows = await rowsAsSaved(sql, name);
  return name === 'employees' ? withHourlyRates(rows, await rowsAsSaved(sql, 'pay-rates')) : rows;
}

async function rowsAsSaved(sql: Reader, name: LabourList): Promise<ListRow[]> {
  const { file } = SAVED_LISTS[name];
  const read = (column: string, value: unknown) => {
    const kind = file.columns[column]?.kind;
    if (kind === 'boolean') return value === 1;
    return value ?? (kind === 'text' ? '' : name === 'burdens' && kind !== 'date' ? 0 : null);
  };
  return (await rowsOfFile(sql, file)).map((row) => ({
    id: Number(row.id),
    ...Object.fromEntries(Object.keys(file.columns).map((it) => [camel(it), read(it, row[it])])),
  })) as ListRow[];
}

/** The lists that have rows. */
export async function usedLists(sql: Reader): Promise<LabourList[]> {
  const used: LabourList[] = [];
  for (const name of LABOUR_LIST_NAMES) if ((await rowsAsSaved(sql, name)).length > 0) used.push(name);
  return used;
}

/** A list that is looked at before it is saved: what it changes, and its rows as the book has them. */
interface PlannedList {
  changes: ListChange[];
  book: BookCheck;
  /** By their places. */
  rows: readonly ReadRow<Columns>[];
}

/** Throws with all that is wrong, by row and column. */
export async function planList(sql: Reader, { list: name, rows }: LabourListInput): Promise<PlannedList> {
  const { file } = SAVED_LISTS[name];
  const saved = await savedRows(sql, name);
  const sent =
    name === 'employees' ? withRatesKept(rows as unknown as readonly ListRow[], saved) : (rows as unknown as readonly ListRow[]);
  assertKnown(sent, saved);
  const changes = changesOf(saved, sent);
  const faults = new FaultList();
  const book = new BookCheck(sql, faults);
  await book.open([file, ...Object.values(file.refers ?? {}).flatMap((it) => it?.to ?? [])]);
  book.replaces(file);
  const read = sent.map((row, at) => bookRow(file, row, at));
  book.add(file, read, { readable: true, missingColumns: [] });
  book.declareAll(file);
  for (const row of read) book.checkRow(file, row);
  const found = faults.faults.map(({ row, column, message }) => ({ field: `rows.${row}.${camel(column)}`, message }));
  assertNoFaults([
    ...found,
    ...(await stillUsed(sql, name, changes, read)),
    ...(await postedOtherwise(sql, name, changes, read)),
  ]);
  return { changes, book, rows: read };
}

function assertKnown(sent: readonly ListRow[], saved: readonly ListRow[]): void {
  const ids = new Set(saved.map((it) => it.id));
  const seen = new Set<number>();
  assertNoFaults(
    sent.flatMap(({ id }, i): Fault[] => {
      if (id === null) return [];
      if (!ids.has(id)) return [{ field: `rows.${i}.id`, message: 'this row is not there any more; open the list again' }];
      if (seen.has(id)) return [{ field: `rows.${i}.id`, message: 'this row stands here twice' }];
      seen.add(id);
      return [];
    }),
  );
}

/** A row as the book reads it; its number is its place. */
function bookRow(file: BookFile, row: ListRow, at: number): ReadRow<Columns> {
  const cells = Object.keys(file.columns).map((column) => {
    const value = row[camel(column)];
    return [column, value === '' || value === undefined ? null : value];
  });
  return { row: at, ...Object.fromEntries(cells) } as unknown as ReadRow<Columns>;
}

/** What may not be removed or altered because time or rates rest on it. */
async function stillUsed(
  sql: Reader,
  name: LabourList,
  changes: readonly ListChange[],
  rows: readonly ReadRow<Columns>[],
): Promise<Fault[]> {
  if (name === 'wage-classes') return missingClasses(sql, rows);
  if (name !== 'employees' && name !== 'work-kinds') return [];
  const uses = new Map((await sql.all(name === 'employees' ? EMPLOYEE_USES : WORK_KIND_USES)).map((it) => [it.id, it.uses]));
  const removed = changes.flatMap(({ was, now }): Fault[] => {
    const count = was && !now ? uses.get(Number(was.id)) : undefined;
    if (!was || !count) return [];
    const what = `${LABOUR_LISTS[name].one} ${was[LABOUR_LISTS[name].named]}`;
    return [{ field: 'rows', message: `The ${what} stays: rates or time name it, ${count} times in all` }];
  });
  return name === 'employees' ? [...removed, ...(await outsideTheirDays(sql, changes))] : removed;
}

/** A list of wage classes has every class that is used: without one, what names it could not be saved again. */
async function missingClasses(sql: Reader, rows: readonly ReadRow<Columns>[]): Promise<Fault[]> {
  if (rows.length === 0) return [];
  const listed = new Set(rows.map((it) => it.wage_class));
  return (await sql.all(USED_WAGE_CLASSES))
    .filter((it) => !listed.has(it.wageClass))
    .map(({ wageClass, by }) => ({
      field: 'rows',
      message: `The list needs wage class ${wageClass}: ${by.replaceAll(',', ', ')} name it`,
    }));
}

async function outsideTheirDays(sql: Reader, changes: readonly ListChange[]): Promise<Fault[]> {
  const days = new Map((await sql.all(EMPLOYEE_DAYS)).map((it) => [it.id, it]));
  return changes.flatMap(({ was, now, row }): Fault[] => {
    const worked = was && now ? days.get(Number(was.id)) : undefined;
    if (!worked || !now) return [];
    const fault = (column: string, message: string) => [{ field: `rows.${row}.${column}`, message }];
    const { startsOn, endsOn } = now as { startsOn?: string | null; endsOn?: string | null };
    return [
      ...(startsOn && startsOn > worked.first ? fault('startsOn', `there is time from ${worked.first} on`) : []),
      ...(endsOn && endsOn < worked.last ? fault('endsOn', `there is time until ${worked.last}`) : []),
      ...(now.wageClass !== was?.wageClass && worked.postedByClass > 0
        ? fault('wageClass', 'posted time has this class and keeps it; give new lines of time a class of their own')
        : []),
    ];
  });
}

/** What is posted keeps its price: the posted lines that the list as it is to be would alter, at the rows that would. */
async function postedOtherwise(
  sql: Reader,
  name: LabourList,
  changes: readonly ListChange[],
  rows: readonly ReadRow<Columns>[],
): Promise<Fault[]> {
  const list = (Object.keys(TERM_FILES) as (keyof Terms)[]).find((it) => TERM_FILES[it] === SAVED_LISTS[name].file);
  const first = changes.flatMap(({ was, now }) => [was?.from, now?.from]).filter((it) => typeof it === 'string');
  if (!list || first.length === 0) return [];
  const before = await loadTerms(sql);
  const after: Terms = { ...before, [list]: TERMS_OF_ROWS[list](rows as never) };
  const posted = await sql.all(POSTED_SINCE, [first.reduce((a, b) => (a < b ? a : b))]);
  const changed = new Set(changes.map((it) => it.row));
  const blamed = new Map<string, string[]>();
  for (const { line, by } of alteredTime(posted, before, after, await loadDigits(sql))) {
    const row = by.flatMap(({ term }) => ('row' in term && changed.has(Number(term.row)) ? [Number(term.row)] : []))[0];
    const field = row === undefined ? 'rows' : `rows.${row}.from`;
    blamed.set(field, [...(blamed.get(field) ?? []), line]);
  }
  return [...blamed].map(([field, lines]) => ({ field, message: `This ${wouldAlter(lines)}` }));
}

/** Saves a whole list as it is to be: rows left out are removed, the others changed or added. */
export async function saveList(command: Command, input: LabourListInput): Promise<{ changes: number }> {
  const { sql } = command;
  const { title } = LABOUR_LISTS[input.list];
  const subject = `labour ${input.list}`;
  await assertUnchanged(command, title, { subject, now: await savedRows(sql, input.list), seen: input.seen });
  const plan = await planList(sql, input);
  await carryOut(command, input.list, plan);
  if (input.list === 'charge-rates') {
    await assertInvoicedStands(sql, 'rows');
    await recharge(sql, null);
  }
  if (input.list === 'employees') await saveHourlyRates(command, plan.changes, input.ratesFrom);
  command.note(subject, { list: title, changes: plan.changes });
  return { changes: plan.changes.length };
}

/** What employees cost an hour, as rates of theirs alone: in the same act as the list of employees, and checked as the list of rates is. */
async function saveHourlyRates(command: Command, changes: readonly ListChange[], from: string | null): Promise<void> {
  const plan = await planHourlyRates(command.sql, changes, from);
  if (plan) await carryOut(command, 'pay-rates', plan);
}

/** Throws with what is wrong at the employees. Employees who are not there yet have no hours that a rate could alter. */
export async function planHourlyRates(
  sql: Reader,
  changes: readonly ListChange[],
  from: string | null,
): Promise<PlannedList | null> {
  const saved = await savedRows(sql, 'pay-rates');
  const posted = new Map((await sql.all(EMPLOYEE_DAYS)).map((it) => [it.id, it.posted > 0]));
  const { rows, employeeRow } = ratesAfter(changes, saved, from ?? EVER, (id) => posted.get(id) ?? false);
  if (employeeRow.size === 0) return null;
  try {
    return await planList(sql, { list: 'pay-rates', seen: '', ratesFrom: null, rows: rows as never });
  } catch (error) {
    if (!(error instanceof LedrinError)) throw error;
    const faults = atEmployees(error.faults, employeeRow);
    throw new LedrinError(error.code, faults[0]?.message ?? error.message, faults);
  }
}

async function carryOut({ sql, actor }: Command, name: LabourList, { changes, book, rows }: PlannedList): Promise<void> {
  const { table, values, named } = SAVED_LISTS[name];
  const into = new BookSave(sql, actor, book, await CostLines.open(sql, []), NO_CONTENTS);
  const valuesOf = (row: number) =>
    (values as (row: Row<Columns>, into: BookSave) => NewRow<Table>)(rows[row] as Row<Columns>, into);
  const gone = changes.filter((it) => it.was && (!it.now || !named)).map((it) => Number(it.was?.id));
  if (gone.length > 0) await sql.remove(table as Table, { id: gone } as never);
  const changed = changes.filter((it) => it.kind === 'changed' && named);
  // Two rows that change their names with each other are never both called the same.
  for (const { was } of changed)
    await sql.update(table as Table, { id: Number(was?.id) } as never, { code: `#${was?.id}` } as never);
  for (const { was, row } of changed)
    await sql.update(table as Table, { id: Number(was?.id) } as never, valuesOf(Number(row)) as never);
  const fresh = changes.filter((it) => it.now && (it.kind === 'added' || !named));
  await addRows(
    sql,
    table,
    fresh.map((it) => ({ id: it.was ? Number(it.was.id) : null, values: valuesOf(Number(it.row)) })),
  );
}

async function addRows(sql: Sql, table: Table, rows: readonly { id: number | null; values: NewRow<Table> }[]): Promise<void> {
  for (const { id, values } of rows) await sql.insertAll(table, [{ ...(id === null ? {} : { id }), ...values }]);
}

/** A list has nothing beside its rows. */
const NO_CONTENTS = { sizes: new Map<string, number>(), outboxNames: new Map<string, string>(), store: () => undefined };
