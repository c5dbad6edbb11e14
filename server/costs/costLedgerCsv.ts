import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { formatCents } from '../../core/money/cents';
import { formatQuantity } from '../../core/money/rate';
import type { CostRow } from '../../wire/costs';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { csvText, harmless } from '../reports/reportCsv';
import { costLedgerPages } from './costLedger';
import type { CostLedgerFilter } from './ledgerQueries';

const HEADER = [
  'dated',
  'job',
  'section',
  'cost_code',
  'cost_type',
  'reference',
  'party',
  'description',
  'quantity',
  'hours',
  'amount',
  'commitment',
  'uninstalled',
  'installed_on',
  'posted_on',
];
const PAGE = 1000;

/**
 * Writes all rows of the cost ledger that match a filter, in its order, into a file of a temporary folder: page after page of
 * one snapshot, each from where the one before it ended. Whoever sends the file removes the folder.
 */
export async function costLedgerCsv(sql: Reader, filter: CostLedgerFilter): Promise<{ path: string; temporaryFolder: string }> {
  const digits = await loadDigits(sql);
  const temporaryFolder = mkdtempSync(join(tmpdir(), 'ledrin-costs-'));
  const path = join(temporaryFolder, 'cost-ledger.csv');
  const out = createWriteStream(path);
  try {
    out.write(csvText([HEADER]));
    for await (const rows of costLedgerPages(sql, filter, PAGE))
      if (!out.write(csvText(rows.map((row) => recordOf(row, digits))))) await once(out, 'drain');
    out.end();
    await once(out, 'finish');
    return { path, temporaryFolder };
  } catch (error) {
    out.destroy();
    rmSync(temporaryFolder, { recursive: true, force: true });
    throw error;
  }
}

function recordOf(row: CostRow, digits: number): string[] {
  return [
    row.dated,
    harmless(row.job),
    harmless(row.section),
    row.costCode,
    row.costType,
    harmless(row.reference),
    harmless(row.party),
    harmless(row.description),
    row.quantity === null ? '' : formatQuantity(row.quantity),
    row.hours === null ? '' : formatQuantity(row.hours),
    formatCents(row.amount, digits),
    row.commitment ?? '',
    row.uninstalled ? 'yes' : '',
    row.installedOn ?? '',
    row.postedOn,
  ];
}
