import { useMemo } from 'react';
import type { CostRow } from '../../../../wire/costs';
import { useColumnKinds } from '../../../ground/columnKinds';
import { useCurrency } from '../../../ground/company';
import { useVendorNames } from '../../../ground/partyNames';
import { Table } from '../../../kit/table/Table';
import { pickColumn } from './pickColumn';
import type { Picks } from './usePicks';

/** The entries to be corrected; those that are to stay as they are can be ticked off. */
export function PickedRows({ all, rows, picks }: { all: readonly CostRow[]; rows: readonly CostRow[]; picks: Picks }) {
  const kinds = useColumnKinds();
  const nameOf = useVendorNames();
  const { exact } = useCurrency();
  const columns = useMemo(
    () => [
      pickColumn(picks),
      kinds.day<CostRow>('posted', 'Date', (it) => it.postedOn),
      kinds.text<CostRow>('job', 'Job', (it) => it.job),
      kinds.text<CostRow>('section', 'Section', (it) => it.section),
      kinds.text<CostRow>('code', 'Code', (it) => it.costCode),
      kinds.text<CostRow>('type', 'Type', (it) => it.costType),
      kinds.text<CostRow>('reference', 'Reference', (it) => it.reference),
      kinds.text<CostRow>('party', 'Supplier / payee', (it) => it.worked?.name ?? nameOf(it.party)),
      kinds.text<CostRow>('description', 'Description', (it) => it.description),
      kinds.amount<CostRow>('amount', 'Amount', (it) => it.amount),
      kinds.link<CostRow>(
        'posting',
        'Document',
        (it) => String(it.postingId),
        (it) => `/ledger/postings/${it.postingId}`,
      ),
    ],
    [kinds, picks, nameOf],
  );
  return (
    <Table
      label="Entries picked"
      columns={columns}
      rows={all}
      rowKey={(it) => String(it.id)}
      height={all.length > 8 ? 260 : undefined}
      onPick={picks.toggle}
      isCurrent={(it) => picks.has(it.id)}
      foot={{
        label: `${rows.length} ${rows.length === 1 ? 'entry' : 'entries'}${rows.length < all.length ? ` of ${all.length}` : ''} picked`,
        cells: { amount: exact(rows.reduce((sum, it) => sum + it.amount, 0)) },
      }}
    />
  );
}
