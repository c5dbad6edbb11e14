import { formatCents } from '../../core/money/cents';
import { formatQuantity } from '../../core/money/rate';
import type { CostRow } from '../../wire/costs';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { csvFile, type SentFile } from '../reportFiles/csvFile';
import { harmless } from '../reportFiles/reportCsv';
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

/** All rows of the cost ledger that match a filter, in its order, of one snapshot. */
export async function costLedgerCsv(sql: Reader, filter: CostLedgerFilter): Promise<SentFile> {
  const digits = await loadDigits(sql);
  const pages = async function* () {
    for await (const rows of costLedgerPages(sql, filter, PAGE)) yield rows.map((row) => recordOf(row, digits));
  };
  return csvFile('cost-ledger.csv', HEADER, pages());
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
