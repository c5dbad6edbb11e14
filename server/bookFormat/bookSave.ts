import { known } from '../../core/errors/known';
import type { CostType } from '../../core/costs/costType';
import type { NewRow, Table } from '../db/fields';
import { nextId, type Sql } from '../db/sql';
import type { CostLines } from '../costs/costEntries';
import type { Actor } from '../acts/audit';
import type { BookCheck } from './bookCheck';
import type { BookFile } from './bookFile';
import { joinKey } from './keys';

type Key = readonly (string | number)[];

/** What saving a checked book works with: ids of what its rows refer to, the database's and the new ones together. */
export class BookSave {
  private readonly ids = new Map<BookFile, Map<string, number>>();
  private readonly headIds = new Map<BookFile, Map<string, number>>();

  constructor(
    readonly sql: Sql,
    readonly actor: Actor,
    readonly book: BookCheck,
    readonly costLines: CostLines,
    readonly contents: BookContents,
  ) {}

  private idsOf(file: BookFile): Map<string, number> {
    const ids = this.ids.get(file);
    if (ids) return ids;
    const made = new Map([...this.book.keysOf(file).existing].map(([key, { id }]) => [key, id]));
    this.ids.set(file, made);
    return made;
  }

  private headIdsOf(file: BookFile): Map<string, number> {
    const ids = this.headIds.get(file);
    if (ids) return ids;
    const made = new Map([...this.book.headsOf(file).existing].map(([key, { id }]) => [key, id]));
    this.headIds.set(file, made);
    return made;
  }

  /** The id of the row of a file under a key that was checked to be there. */
  id(file: BookFile, ...key: Key): number {
    return known(this.idsOf(file), joinKey(...key));
  }

  /** The id of what several rows of a file are together. */
  headId(file: BookFile, ...key: Key): number {
    return known(this.headIdsOf(file), joinKey(...key));
  }

  /** The id of the cost line of a row, made where it is new; saved with the next `insertAll`. */
  costLine(jobId: number, row: { section: string | null; cost_code: string; cost_type: CostType }, costCodes: BookFile): number {
    return this.costLines.idOf(jobId, row.section ?? '', this.id(costCodes, row.cost_code), row.cost_type);
  }

  /** Saves the cost lines made so far, before rows that name them. */
  flush(): Promise<void> {
    return this.costLines.flush();
  }

  /** Saves rows of a table, after the cost lines they may name. */
  async insertAll<T extends Table>(table: T, rows: readonly NewRow<T>[]): Promise<void> {
    await this.flush();
    await this.sql.insertAll(table, rows);
  }

  /** Saves rows under ids of their own, and notes each id under its key. */
  async keyed<Row, T extends Table>(
    file: BookFile,
    table: T,
    rows: readonly Row[],
    key: (row: Row) => Key,
    values: (row: Row) => NewRow<T>,
  ): Promise<void> {
    await this.numbered(this.idsOf(file), table, rows, key, values);
  }

  /** The same for what several rows are together. */
  async heads<Row, T extends Table>(
    file: BookFile,
    table: T,
    rows: readonly Row[],
    key: (row: Row) => Key,
    values: (row: Row) => NewRow<T>,
  ): Promise<void> {
    const there = this.headIdsOf(file);
    const firsts = new Map<string, Row>();
    for (const row of rows) {
      const name = joinKey(...key(row));
      if (!there.has(name) && !firsts.has(name)) firsts.set(name, row);
    }
    await this.numbered(there, table, [...firsts.values()], key, values);
  }

  private async numbered<Row, T extends Table>(
    ids: Map<string, number>,
    table: T,
    rows: readonly Row[],
    key: (row: Row) => Key,
    values: (row: Row) => NewRow<T>,
  ): Promise<void> {
    let id = await nextId(this.sql, table);
    const toSave = rows.map((row) => {
      ids.set(joinKey(...key(row)), id);
      return { id: id++, ...values(row) };
    });
    await this.insertAll(table, toSave);
  }
}

/** What a book's folder holds beside its CSV files: the contents of attachments, and messages. Found and judged first, saved last. */
export interface BookContents {
  /** Size in bytes by hash. */
  sizes: Map<string, number>;
  /** The name each message gets in the outbox, by its name in the book. */
  outboxNames: Map<string, string>;
  /** Puts everything where it belongs. */
  store(): void;
}
