import type { Writable } from 'node:stream';
import { once } from 'node:events';
import { formatCents } from '../../core/money/cents';
import { formatQuantity } from '../../core/money/rate';
import type { Sql } from '../db/sql';
import { loadCompany } from '../company/company';
import { costLedgerPage, type CostLedgerFilter } from './costLedger';
import { csvText } from '../reports/reportCsv';

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
];
const PAGE = 1000;

/** Streams all rows of the cost ledger that match a filter, in its order. */
export async function costLedgerCsv(sql: Sql, filter: CostLedgerFilter, out: Writable): Promise<void> {
  const digits = (await loadCompany(sql))?.digits ?? 2;
  out.write(csvText([HEADER]));
  for (let offset = 0; ; offset += PAGE) {
    const { rows } = await costLedgerPage(sql, { ...filter, offset, limit: PAGE });
    const records = rows.map((row) => [
      row.dated,
      row.job,
      row.section,
      row.costCode,
      row.costType,
      row.reference,
      row.party,
      row.description,
      row.quantity === null ? '' : formatQuantity(row.quantity),
      row.hours === null ? '' : formatQuantity(row.hours),
      formatCents(row.amount, digits),
      row.commitment ?? '',
      row.uninstalled ? 'yes' : '',
      row.installedOn ?? '',
    ]);
    if (records.length > 0 && !out.write(csvText(records))) await once(out, 'drain');
    if (rows.length < PAGE) break;
  }
  out.end();
}
