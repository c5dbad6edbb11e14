import type { Charging } from '../../../core/charging/chargeMark';
import type { PayClass } from '../../../core/labour/payClass';
import type { PricedTime } from '../../../core/labour/priceTime';
import { shared } from '../../bookFormat/bookCheck';
import type { RowOf } from '../../db/fields';
import { type POSTED_TIME } from '../queries';
import type { Terms } from '../terms';
import type { TimeRow } from './timeColumns';

type Posted = RowOf<typeof POSTED_TIME>;

/** What is priced, of a line of a book or of the database. */
export type Price = Pick<PricedTime, 'rate' | 'rung' | 'payAmount' | 'burden'>;

/** One part of a line of a book, as it is saved: of one class where it is posted. */
export interface PlannedTime {
  row: TimeRow;
  pay: PayClass | null;
  hours: number;
  split: boolean;
  /** Null where it is not posted. */
  price: Price | null;
  /** What it reverses: a line of the database by its id, one of the book by its name. */
  reverses: { id: number } | { key: string } | null;
  /** What is said of charging it; a line that reverses another has its mark. */
  charging: Charging;
}

export interface Employee {
  name: string;
  wageClass: string;
  startsOn: string | null;
  endsOn: string | null;
}

/** Labour of the database, and what the lines of the book come to. */
export const labourOfBook = shared(() => ({
  terms: null as Terms | null,
  posted: [] as Posted[],
  employees: new Map<string, Employee>(),
  planned: [] as PlannedTime[],
  /** Marks of posted lines of the database, by their ids. */
  marks: new Map<number, Charging>() as ReadonlyMap<number, Charging>,
}));

export const timeKey = (sheet: string, line: string, pay: string) => `${sheet}/${line}/${pay}`;
