/** One thing wrong with a book. Row 1 is the header; `column` is empty where no one column is at fault. */
export interface BookFault {
  file: string;
  row: number;
  column: string;
  message: string;
}

/** All that is wrong with a book; nothing of it was imported. */
export class BookRefused extends Error {
  constructor(readonly faults: readonly BookFault[]) {
    super(`${faults.length} ${faults.length === 1 ? 'fault' : 'faults'} in the book; nothing was imported`);
    this.name = 'BookRefused';
  }
}

/** docs/book.md: `file.csv:ROW: column: what is wrong`. */
export function faultLine(fault: BookFault): string {
  return `${fault.file}:${fault.row}: ${fault.column}: ${fault.message}`;
}

/** Collects faults while a book is checked, so that all are told at once. */
export class FaultList {
  readonly faults: BookFault[] = [];

  add(file: string, row: number, column: string, message: string): void {
    this.faults.push({ file: `${file}.csv`, row, column, message });
  }

  get any(): boolean {
    return this.faults.length > 0;
  }
}
