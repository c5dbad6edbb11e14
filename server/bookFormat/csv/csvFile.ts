import { createReadStream } from 'node:fs';
import { CsvRecords, type Cells } from './csvRecords';

/** One record as read. `row` counts records from 1, the header. */
export interface CsvRecord {
  row: number;
  cells: Cells;
}

/** The file as a whole cannot be read. */
export class NotUtf8 extends Error {}

/** Streams the records of a CSV file in batches, in bounded memory. A byte order mark is passed over. */
export async function* csvBatches(path: string): AsyncGenerator<CsvRecord[]> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const records = new CsvRecords();
  let row = 0;
  const numbered = (batch: Cells[]) => batch.map((cells) => ({ row: ++row, cells }));
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18 })) {
    const batch = records.feed(decode(decoder, chunk as Buffer, true));
    if (batch.length > 0) yield numbered(batch);
  }
  const rest = [...records.feed(decode(decoder, Buffer.alloc(0), false)), ...records.end()];
  if (rest.length > 0) yield numbered(rest);
}

function decode(decoder: TextDecoder, chunk: Buffer, stream: boolean): string {
  try {
    return decoder.decode(chunk, { stream });
  } catch {
    throw new NotUtf8('not UTF-8');
  }
}
