import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { retentionHeld, valueApplication } from '../../core/billing/application';
import { importBook } from '../../server/commands/importBook';
import { openDatabase } from '../../server/db/database';
import { loadBillingJobs } from '../../server/queries/billingJobs';

/** Imports a book into a throwaway database and tells what its applications ask for, in pence. */
export async function loadBillingOfFolder(folder: string) {
  const place = mkdtempSync(join(tmpdir(), 'ledrin-'));
  const database = await openDatabase(join(place, 'sample.sqlite'));
  try {
    await importBook(database, folder, { name: 'sample', at: new Date(0).toISOString() });
    const ids = await database.read().all<{ id: number }>('SELECT id FROM job');
    const jobs = await loadBillingJobs(database.read(), ...ids.map((row) => row.id));
    return {
      payable: (job: string, number: number) => valueApplication(jobs.get(job)!, jobs.get(job)!.applications.find((it) => it.number === number)!, '9999-12-31').payable,
      held: (job: string, on: string) => retentionHeld(jobs.get(job)!, on),
    };
  } finally {
    await database.close();
    rmSync(place, { recursive: true });
  }
}
