/** One thing wrong with a book. Row 1 is the header; `column` is empty where no one column is at fault. */
export interface BookFault {
  file: string;
  row: number;
  column: string;
  message: string;
}

/** All that is wrong with a book; nothing of it was imported. */
export class BookRefused extends Error {
  /** `more`: how many there are beside those listed. */
  constructor(
    readonly faults: readonly BookFault[],
    readonly more = 0,
  ) {
    const count = faults.length + more;
    super(`${count.toLocaleString('en')} ${count === 1 ? 'fault' : 'faults'} in the book; nothing was imported`);
    this.name = 'BookRefused';
  }
}

/** docs/book.md: `file.csv:ROW: column: what is wrong`. */
export function faultLine(fault: BookFault): string {
  return `${fault.file}:${fault.row}: ${fault.column}: ${fault.message}`;
}

/** One wrong column of a long file is a fault in every row; beyond these they are counted, not listed. */
const MOST_LISTED = 100_000;

/** Collects faults while a book is checked, so that all are listed at once. */
export class FaultList {
  readonly faults: BookFault[] = [];
  /** How many there are beside those listed. */
  more = 0;

  add(file: string, row: number, column: string, message: string): void {
    if (this.faults.length < MOST_LISTED) this.faults.push({ file: `${file}.csv`, row, column, message });
    else this.more += 1;
  }

  get any(): boolean {
    return this.faults.length > 0;
  }
}
