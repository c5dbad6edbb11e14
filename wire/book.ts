import * as v from 'valibot';
import { command, download, upload } from './call';

/** What an import brought: rows without headers, by file. */
export type ImportCounts = Record<string, number>;

/** What the books come to, amounts in minor units. */
export interface ImportTotals {
  asOf: string;
  /** Decimals of the currency. */
  digits: number;
  jobs: number;
  contractSum: number;
  cost: number;
  earned: number;
  billed: number;
  ties: boolean;
}

/** What an import would bring. */
export interface ImportPreview {
  /** By file: its rows, and how many of them are there already; null where rows have no key. */
  files: { name: string; rows: number; there: number | null }[];
  faults: string[];
  more: number;
  /** Null where there is no company yet. */
  before: ImportTotals | null;
  after: ImportTotals | null;
  /** Costs that identical to costs that already exist. */
  identical: {
    count: number;
    amount: number;
    first: { job: string; reference: string; party: string; dated: string; amount: number }[];
  };
}

const importQuery = v.strictObject({
  /** Costs that are in the books already are left out. */
  identical: v.optional(v.picklist(['skip'], 'expected skip')),
});

export const bookCalls = {
  loadSampleBook: command<ImportCounts>('set-up')('/book/sample'),
  /** Files or a ZIP, as for the import; nothing is saved. */
  previewImport: upload<ImportPreview>('import-books')('/book/preview', { quiet: true }),
  importBook: upload<ImportCounts>('import-books')('/book/import', { query: importQuery }),
  exportBook: download('read-books')('/book/export'),
};
