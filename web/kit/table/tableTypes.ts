import type { ReactNode } from 'react';

/** A column of a table: what it shows of a row, and what it is sorted, found, added up and copied by. */
export interface TableColumn<Row> {
  key: string;
  title: ReactNode;
  /** What is read out where the title is not text. */
  label?: string;
  cell: (row: Row) => ReactNode;
  /** What the column is worth on a row; a column without it is not sorted, found or copied. */
  value?: (row: Row) => string | number | null;
  /** How a number of this column is written where it is added up or copied; figures stand to the right. */
  number?: (value: number) => string;
  /** Its numbers add up: of the rows that are found, the foot shows their sum. */
  adds?: boolean;
  /** Not sorted by, though it is worth something. */
  unsorted?: boolean;
  /** To the right without being a number to add up. */
  right?: boolean;
  width?: number;
  /** Its head breaks, rather than widening the column. */
  wraps?: boolean;
  /** Cut off with its whole text in a tooltip, rather than wrapped: after one line, or after two. */
  cut?: boolean | 'two-lines';
  /** Stays in sight while the others scroll. */
  stays?: boolean;
}

export interface TableFoot {
  /** Stands under the columns before the first figure. */
  label: ReactNode;
  cells: Readonly<Record<string, ReactNode>>;
}

/** Rows in groups that fold, in the order the groups first come. */
export interface TableGroups<Row> {
  of: (row: Row) => string;
  /** What a group comes to, under its name. */
  sums: (rows: readonly Row[]) => TableFoot['cells'];
  folded: ReadonlySet<string>;
  onFold: (group: string) => void;
}

/** What the rows are sorted by elsewhere, and how another order is asked for. */
export interface TableOrder {
  key: string;
  descending: boolean;
  onOrder: (key: string) => void;
}

/** More rows than are held at once: those in view are asked for. */
export interface ManyRows<Row> {
  count: number;
  /** The row at a place; undefined where it is not here yet. */
  rowAt: (index: number) => Row | undefined;
  /** The places in view, whenever they change. */
  onView: (from: number, to: number) => void;
}

export interface TableProps<Row> {
  /** What the table is, for whoever does not see it. */
  label: string;
  columns: readonly TableColumn<Row>[];
  rows: readonly Row[];
  rowKey: (row: Row) => string;
  foot?: TableFoot | readonly TableFoot[];
  /** Said in place of rows. */
  empty?: ReactNode;
  /** The row that stands open beside the table. */
  isCurrent?: (row: Row) => boolean;
  /** Scrolls in a box of its own, its head and foot in sight: as high as the window leaves, or so many pixels. */
  height?: 'window' | number;
  /** Many columns of figures: narrow sides, and heads that break. */
  dense?: boolean;
  /** Columns hidden by whoever uses it. */
  hidden?: ReadonlySet<string>;
  /** What the rows are sorted by before somebody sorts them otherwise; empty: as given. */
  sorted?: { key: string; descending: boolean };
  /** Sorted elsewhere, such as by the server: the rows come in this order, and pressing a head asks for another. */
  order?: TableOrder;
  /** Rows to be picked: those with a selected cell, by Space. */
  onPick?: (rows: readonly Row[]) => void;
  groups?: TableGroups<Row>;
  /** `rows` are then those held of them. */
  many?: ManyRows<Row>;
  /** Columns as wide as they say, the rest shared by the others. */
  even?: boolean;
  /** No box to find rows with, for the page has its own. */
  unsearched?: boolean;
  rowClass?: (row: Row) => string;
  className?: string;
}
