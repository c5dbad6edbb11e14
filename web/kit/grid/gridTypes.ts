import { type ReactNode } from 'react';
import type { Codec } from '../typed/codecs';

export type GridRow = Record<string, string>;

/** The cell that names a row, whatever its place; never shown, and no typing. */
export const ROW_KEY = '$key';
/** The cell that names the part of a document a row is of. */
export const PART = '$part';
/** Cells that nobody types begin so. */
export const UNSEEN = '$';

export interface Offer {
  value: string;
  label: string;
}

/** A line above rows that belong together. */
export interface GridHeading {
  key: string;
  /** In the first column. */
  label: ReactNode;
  /** In the others, by their keys. */
  cells: Readonly<Record<string, ReactNode>>;
}

export interface GridColumn {
  key: string;
  title: string;
  width: number | string;
  /** Right-aligned figures. */
  numeric?: boolean;
  /** What the cell may complete to, best first. */
  offers?: (row: GridRow) => readonly Offer[];
  /** What an empty cell would likely hold: it stands there in grey, and Space takes it. */
  proposes?: (row: GridRow, index: number) => string | null;
  /** Turns what was typed into how it is saved, when the cell is left: `1250` → `1,250.00`. */
  tidy?: (text: string) => string;
  /** Of a column of days: the month that what is typed in short is taken to be in. It has a calendar beside the cell one is in. */
  month?: string;
  /** What its cells are read by; figures of a kind are added up where they are selected. */
  codec?: Codec<unknown>;
  /** A help to type the others by, and not saved: a block pasted over all columns passes it. */
  isHelp?: boolean;
  /** A cell that is worked out, not typed. */
  show?: (row: GridRow, index: number) => ReactNode;
}

/** A column as it is read where nothing is typed any more. */
export function asRead(column: GridColumn): GridColumn {
  return column.show ? column : { ...column, show: (row) => row[column.key] ?? '' };
}
