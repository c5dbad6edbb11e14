import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { csvText } from './reportCsv';

/** A file to be sent, in a folder that whoever sends it removes. */
export interface SentFile {
  path: string;
  temporaryFolder: string;
}

/** Writes a CSV file of many rows, page after page, without holding them all. */
export async function csvFile(name: string, header: string[], pages: AsyncIterable<string[][]>): Promise<SentFile> {
  const temporaryFolder = mkdtempSync(join(tmpdir(), 'ledrin-csv-'));
  const path = join(temporaryFolder, name);
  const out = createWriteStream(path);
  try {
    out.write(csvText([header]));
    for await (const rows of pages) if (!out.write(csvText(rows))) await once(out, 'drain');
    out.end();
    await once(out, 'finish');
    return { path, temporaryFolder };
  } catch (error) {
    out.destroy();
    rmSync(temporaryFolder, { recursive: true, force: true });
    throw error;
  }
}
