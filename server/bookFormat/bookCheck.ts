import { closedDayRefusal } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { messageOf, showIn } from '../../core/refusals/messages';
import type { Refusal } from '../../core/refusals/refusal';
import type { Reader } from '../db/sql';
import { type BookFile, type BookFileOf, type Reference } from './bookFile';
import type { FaultList } from '../../core/errors/bookFaults';
import { MOST_DIGITS } from './cells';
import type { Columns, ReadRow } from './columns';
import { joinKey, Keys, type There } from './keys';
import type { FileShape } from './csv/readRows';

type Parts = readonly (string | number | null | undefined)[];

/** Something the checks of one noun share while a book is checked. */
export interface Shared<T> {
  make(): T;
}
export function shared<T>(make: () => T): Shared<T> {
  return { make };
}

/**
 * What the checks of one book share: its rows, the keys that may be referred to, and the faults found. A check that would only
 * repeat what an earlier fault already said stays silent.
 */
export class BookCheck {
  private readonly rows = new Map<BookFile, ReadRow<Columns>[]>();
  private readonly keys = new Map<BookFile, Keys>();
  private readonly heads = new Map<BookFile, Keys>();
  private readonly shapes = new Map<BookFile, FileShape>();
  private readonly owned = new Map<Shared<unknown>, unknown>();
  /** Decimals of the currency; null where it is at fault. */
  digits: number | null = null;
  /** The last day up to which the books of the database are closed; null where none is. */
  private closedTo: string | null = null;

  constructor(
    readonly sql: Reader,
    readonly faults: FaultList,
  ) {}

  /** Reads the keys of the database, and makes room for those of the book. */
  async open(files: readonly BookFile[]): Promise<void> {
    this.closedTo = await closedTo(this.sql);
    for (const file of files) {
      const query =
        file.existing === undefined
          ? `SELECT id, ${file.key.map((it) => `"${it}"`).join(', ')} FROM (${file.query})`
          : file.existing;
      const there = file.key.length === 0 || query === null ? new Map<string, There>() : await this.read(query, file.key);
      this.keys.set(file, new Keys(there));
      if (file.head) this.heads.set(file, new Keys(await this.read(file.head.existing, file.head.by)));
    }
  }

  /** The rows to come stand in place of all a file has: no key of the database counts. */
  replaces(file: BookFile): void {
    this.keys.set(file, new Keys(new Map()));
  }

  private async read(query: string, columns: readonly string[]): Promise<Map<string, There>> {
    const rows = (await this.sql.anyRows(query)) as There[];
    return new Map(rows.map((row) => [joinKey(...columns.map((it) => row[it] ?? '')), row]));
  }

  /** Takes in the rows of a file, and what it as a whole lacks. */
  add(file: BookFile, rows: readonly ReadRow<Columns>[], shape: FileShape): void {
    const all = this.rows.get(file);
    if (all) all.push(...rows);
    else this.rows.set(file, [...rows]);
    this.shapes.set(file, shape);
    // Where the book's own list cannot be read in full, no reference to it is called unknown.
    const lacks = (columns: readonly string[]) => !shape.readable || columns.some((it) => shape.missingColumns.includes(it));
    this.keysOf(file).incomplete = lacks(file.key);
    if (file.head) this.headsOf(file).incomplete = lacks(file.head.by);
  }

  rowsOf<C extends Columns>(file: BookFileOf<C>): readonly ReadRow<C>[] {
    return (this.rows.get(file) ?? []) as unknown as ReadRow<C>[];
  }

  /** What a file as a whole lacks; undefined where it is not in the book. */
  shapeOf(file: BookFile): FileShape | undefined {
    return this.shapes.get(file);
  }

  keysOf(file: BookFile): Keys {
    const keys = this.keys.get(file);
    if (!keys) throw new Error(`${file.name} is not a file of the book`);
    return keys;
  }

  headsOf(file: BookFile): Keys {
    const keys = this.heads.get(file);
    if (!keys) throw new Error(`${file.name} has no head`);
    return keys;
  }

  /** The row of the database under a key; undefined where it has none. */
  there(file: BookFile, ...key: Parts): There | undefined {
    return this.keysOf(file).existing.get(joinKey(...key.map((it) => it ?? '')));
  }

  own<T>(what: Shared<T>): T {
    if (!this.owned.has(what)) this.owned.set(what, what.make());
    return this.owned.get(what) as T;
  }

  fault(file: BookFile, row: { row: number }, column: string, message: string): void {
    this.faults.add(file.name, row.row, column, message);
  }

  /** Places a refusal of core at a row; `columns` name the fields that are called otherwise in the file. */
  refuse(file: BookFile, row: { row: number }, refusal: Refusal, columns: Readonly<Record<string, string>> = {}): void {
    const [first = '', ...rest] = messageOf(refusal, showIn(this.digits ?? MOST_DIGITS));
    this.fault(file, row, columns[refusal.at] ?? refusal.at, first.toLowerCase() + rest.join(''));
  }

  /** Declares what the rows of a file may be referred to by; a key that is there already is a fault. */
  declareAll(file: BookFile): void {
    const { key, head } = file;
    const lines = new Map<string, ReadRow<Columns>>();
    for (const row of this.rowsOf(file)) {
      if (key.length > 0) this.declare(file, row);
      if (head) this.declareHead(file, row, lines);
      file.declare?.(row, this);
    }
  }

  private declare(file: BookFile, row: ReadRow<Columns>): void {
    const parts = file.key.map((it) => row[it] as Parts[number]);
    if (parts.includes(undefined)) return;
    const filled = parts.map((part) => part ?? '');
    if (this.keysOf(file).declare(joinKey(...filled))) return;
    const named = filled.filter((it) => it !== '').join(', ');
    this.fault(file, row, file.key.at(-1) ?? '', `duplicate key: ${named} is already there`);
  }

  private declareHead(file: BookFile, row: ReadRow<Columns>, firsts: Map<string, ReadRow<Columns>>): void {
    const { head } = file;
    if (!head) return;
    const parts = head.by.map((it) => row[it] as Parts[number]);
    if (parts.some((part) => part === null || part === undefined)) return;
    const key = joinKey(...(parts as string[]));
    const keys = this.headsOf(file);
    const there = keys.existing.get(key);
    if (there && !head.joins)
      this.fault(file, row, head.by.at(-1) ?? '', `duplicate key: ${head.called} ${parts.at(-1)} is already in the database`);
    keys.declare(key);
    const first: Readonly<Record<string, unknown>> | undefined = firsts.get(key) ?? there;
    if (!first) firsts.set(key, row);
    for (const column of first ? head.same : []) {
      if (row[column] === undefined || first?.[column] === undefined || row[column] === first[column]) continue;
      const message = `differs from the other rows of ${head.called} ${parts.at(-1)}; it must be the same in all of them`;
      this.fault(file, row, column, message);
    }
  }

  /** Checks what a row refers to, then what its file says of it. */
  checkRow<C extends Columns>(file: BookFileOf<C>, row: ReadRow<C>): void {
    const missing = new Set<string>();
    for (const [column, reference] of this.referencesOf(file))
      if (!this.refers(file, row, column, reference, missing)) missing.add(column);
    this.checkOpen(file, row);
    file.check?.(row, this);
  }

  /** Nothing counts on a day up to which the books are closed. */
  private checkOpen<C extends Columns>(file: BookFileOf<C>, row: ReadRow<C>): void {
    if (this.closedTo === null || !file.countsOn) return;
    for (const [column, day] of Object.entries(file.countsOn(row))) {
      const refused = day ? closedDayRefusal(day, this.closedTo, column) : null;
      if (refused) this.refuse(file, row, refused);
    }
  }

  private readonly references = new Map<BookFile, readonly (readonly [string, Reference])[]>();

  /** The references of a file, listed once for all its rows. */
  private referencesOf(file: BookFile): readonly (readonly [string, Reference])[] {
    const there = this.references.get(file);
    if (there) return there;
    const listed = Object.entries(file.refers ?? {}) as [string, Reference][];
    this.references.set(file, listed);
    return listed;
  }

  /** True where a reference resolves. One that leans on another that does not is not judged. */
  private refers(file: BookFile, row: ReadRow<Columns>, column: string, to: Reference, missing: ReadonlySet<string>): boolean {
    if (!to.by) {
      const part = row[column] as Parts[number];
      return part !== null && part !== undefined && this.resolves(file, row, column, to, [part]);
    }
    const columns = to.by;
    const parts = columns.map((it) => row[it] as Parts[number]);
    if (columns.some((it) => it !== column && missing.has(it)) || parts.some((it) => it === null || it === undefined))
      return false;
    return this.resolves(file, row, column, to, parts);
  }

  /** Reports a reference to something neither the book nor the database has; true where it resolves. */
  resolves(file: BookFile, row: { row: number }, column: string, reference: Reference, parts: Parts): boolean {
    const { to, head, whole, ifAny } = reference;
    const called = (head ? to.head?.called : to.called) ?? to.name;
    const keys = head ? this.headsOf(to) : this.keysOf(to);
    const key = joinKey(...parts.map((it) => it ?? ''));
    if (ifAny && keys.isEmpty) return true;
    if (!keys.has(key)) {
      const where = parts.length > 1 ? ` on ${parts[0]}` : '';
      this.fault(file, row, column, `unknown reference: there is no ${called} ${parts.at(-1)}${where}`);
      return false;
    }
    if (!keys.existing.has(key)) return true;
    const why = whole ? `${called} ${parts.at(-1)} is already in the database; ${whole}` : to.whyNotNamed?.(key, file, this);
    if (why) this.fault(file, row, column, why);
    return true;
  }
}
