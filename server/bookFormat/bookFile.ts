import type { ApprovalName } from '../../core/approvals/approvals';
import type { Cents } from '../../core/money/cents';
import type { BookCheck } from './bookCheck';
import type { BookSave } from './bookSave';
import type { Columns, ReadRow, Row } from './columns';

/** What a column of a file names: a row of another, by this column alone or by these columns of its own row. */
export interface Reference {
  to: BookFile;
  by?: readonly string[];
  /** Names what several rows of the other file are together. */
  head?: true;
  /** Judged only where the other file has rows, in the book or the database: a list that nobody keeps names nothing. */
  ifAny?: true;
  /** The other row has to be the book's own: why nothing is added to one the database has. */
  whole?: string;
}

/** What several rows are together, such as an order with its lines. */
export interface Head {
  by: readonly string[];
  called: string;
  /** Columns that are the same in all its rows. */
  same: readonly string[];
  /** Those of the database: a query that gives `id` and the columns above. */
  existing: string;
  /** True where an import adds rows to one the database has. */
  joins: boolean;
}

/**
 * When a job the database has takes rows of a file: always; until it is locked; until it is closed; until it is closing out; only
 * as a tender; or as a budget, which is frozen at the award.
 */
export type TakenBy = 'always' | 'unlocked' | 'final' | 'contract' | 'tender' | 'budget';

/** Something a row does that may have to be approved: more of it than `amount` tells nothing. */
export interface BookAct {
  row: { row: number; job?: string | null };
  column: string;
  kind: ApprovalName;
  amount: Cents;
}

/**
 * One file of the open format: all there is to say of it. A runner reads, checks, saves and writes it, and prints its row of
 * docs/book.md.
 */
export interface Definition<C extends Columns> {
  readonly name: string;
  readonly columns: C;
  /** What names a row; a second of the same is a fault of the last column. Empty: rows have no key. */
  readonly key: readonly NoInfer<keyof C & string>[];
  /** What docs/book.md says in place of a key. */
  readonly keyNote?: string;
  /** What a row is called where another names it. */
  readonly called?: string;
  readonly head?: Head;
  readonly refers?: Readonly<Partial<Record<NoInfer<keyof C & string>, Reference>>>;
  /** Of files whose rows are of a job. */
  readonly takenBy?: TakenBy;
  /** The keys of the database, where its own query does not give them: another query, or null for none. */
  readonly existing?: string | null;
  /** Reads the rows in pages by `id`; its other columns bear the names of the format. */
  readonly query: string;
  /** The order in which rows go out, by columns of the query; that of their ids where it is left out. */
  readonly order?: string;
  /** Names what other rows may refer to beside the key. */
  declare?(row: ReadRow<C>, book: BookCheck): void;
  check?(row: ReadRow<C>, book: BookCheck): void;
  /** The columns of days on which what the row says counts; null and a day that cannot be read are passed over. None may be closed. */
  countsOn?(row: ReadRow<C>): Readonly<Record<string, string | null | undefined>>;
  /** Why a row of another file may not name this one, which the database has; null where it may. */
  whyNotNamed?(key: string, by: BookFile, book: BookCheck): string | null;
  /** What the checks of the whole need of the database. */
  prepare?(book: BookCheck): Promise<void>;
  checkAll?(rows: readonly ReadRow<C>[], book: BookCheck): void;
  /** What can be judged only once every cost was read: costs stream by last. */
  checkEnd?(book: BookCheck): void;
  /** What its rows do that the company may want approved first; of jobs the database has. */
  acts?(rows: readonly ReadRow<C>[], book: BookCheck): readonly BookAct[];
  /** Saves the rows of a book without a fault. Files are saved in the order of the registry. */
  save?(rows: readonly Row<C>[], into: BookSave): Promise<void>;
  /** Saves what rests on all cost of the book, after it. */
  finish?(into: BookSave): Promise<void>;
}

/** A file of the book, whatever its columns. */
export type BookFile = Definition<Columns>;
/** One whose columns are known. */
export type BookFileOf<C extends Columns> = BookFile & { readonly columns: C };

/** Declares a file of the book: its rules see rows of its own columns. */
export function bookFile<const C extends Columns>(definition: Definition<C>): BookFileOf<C> {
  return definition as unknown as BookFileOf<C>;
}

/** The columns a reference is made of, the one at fault last. */
export function partsOf(column: string, { by }: Reference): readonly string[] {
  return by ?? [column];
}
