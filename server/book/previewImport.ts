import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { ImportPreview, ImportTotals } from '../../wire/book';
import { findCompany, usualAsOf } from '../company/company';
import { IDENTICAL_OF_POSTING } from '../costs/queries';
import { copyDatabase } from '../db/backup';
import { openDatabase, type Database } from '../db/database';
import { runCommand, type Asked } from '../acts/command';
import { REPORTS } from '../reports/index';
import { BookRefused, faultLine } from '../../core/errors/bookFaults';
import { importBook, type FileInspected } from './importBook';
import type { Stores } from '../db/stores';
import { unpackZips } from './unpackZips';

/**
 * Shows what importing a folder would bring: it is imported into a copy of the database and looked at, so it cannot differ. Nothing of
 * it stays.
 */
export async function previewImport(database: string, asked: Asked, folder: string): Promise<ImportPreview> {
  // Inside the folder of what was sent, which goes whatever becomes of this thread.
  const temporary = mkdtempSync(join(folder, '.preview-'));
  const stores: Stores = { files: join(temporary, 'files'), outbox: join(temporary, 'outbox') };
  try {
    await unpackZips(folder);
    await copyDatabase(database, join(temporary, 'copy.sqlite'));
    const copy = await openDatabase(join(temporary, 'copy.sqlite'));
    try {
      return await previewOn(copy, asked, folder, stores);
    } finally {
      await copy.close();
    }
  } finally {
    rmSync(temporary, { recursive: true, force: true });
  }
}

async function previewOn(copy: Database, { actor }: Asked, folder: string, stores: Stores): Promise<ImportPreview> {
  const before = await totalsOf(copy, actor.at);
  let files: FileInspected[] = [];
  try {
    const counts = await runCommand(copy, { name: 'import-book', actor }, (command) =>
      importBook(command, folder, stores, { onChecked: (inspected) => (files = inspected) }),
    );
    const all = counts.costs === undefined ? files : [...files, { name: 'costs', rows: counts.costs, there: null }];
    const identical = await copy.read((sql) => sql.all(IDENTICAL_OF_POSTING));
    return {
      files: all,
      faults: [],
      more: 0,
      before,
      after: await totalsOf(copy, actor.at),
      identical: {
        count: identical.length,
        amount: identical.reduce((sum, it) => sum + it.amount, 0),
        first: identical
          .slice(0, 5)
          .map(({ job, reference, party, dated, amount }) => ({ job, reference, party, dated, amount })),
      },
    };
  } catch (error) {
    if (!(error instanceof BookRefused)) throw error;
    const faults = error.faults.slice(0, 200).map(faultLine);
    const more = error.faults.length - faults.length + error.more;
    return { files, faults, more, before, after: null, identical: { count: 0, amount: 0, first: [] } };
  }
}

/** What the books come to; null without a company. */
async function totalsOf(database: Database, at: string): Promise<ImportTotals | null> {
  return database.read(async (sql) => {
    const company = await findCompany(sql);
    if (!company) return null;
    const asOf = await usualAsOf(sql, at.slice(0, 10));
    const [wip, tie] = [await REPORTS.wip(sql, { asOf }), await REPORTS['tie-out'](sql, { asOf })];
    const total = wip.rows.at(-1) ?? {};
    const of = (column: string) => Number(total[column] ?? 0);
    return {
      asOf,
      digits: company.digits,
      jobs: wip.rows.length - 1,
      contractSum: of('contract_sum'),
      cost: of('cost_to_date'),
      earned: of('earned_revenue'),
      billed: of('billed_to_date'),
      ties: tie.rows.every((row) => row.difference === 0),
    };
  });
}
