import type { EntryToCharge } from '../../../core/charging/charge';
import type { Charging } from '../../../core/charging/chargeMark';
import type { PlainDate } from '../../../core/calendar/plainDate';
import { shared } from '../../bookFormat/bookCheck';
import type { BookFile } from '../../bookFormat/bookFile';

/** A cost of a book that something is said of charging, or that is on a charged job. */
export interface CostOfBook extends Omit<EntryToCharge, 'client' | 'markup'> {
  file: BookFile;
  row: number;
  /** What it is called in a message. */
  name: string;
  postedOn: PlainDate;
  charging: Charging;
  /** The invoices that took it, in order. */
  invoices: readonly string[];
}

/** What is charged of the costs of a book, gathered as they are read. */
export const chargingOfBook = shared(() => ({
  costs: [] as CostOfBook[],
  /** Jobs with a cost that could not be read: what their invoices ask for is not known. */
  unknown: new Set<string>(),
  /** Entries saved that invoices took, by their ids. */
  taken: [] as { entry: number; job: string; invoices: readonly string[] }[],
}));
