import { useMemo } from 'react';
import type { ListChange } from '../../../core/prices/listChanges';
import { Table } from '../../kit/table/Table';
import { showUnitCostFull } from '../../kit/typed/unitCosts';
import { useColumnKinds } from '../columnKinds';

/** Items or build-ups that an act would change, with what one unit costs before and after it. */
export function PriceChanges({ title, rows }: { title: string; rows: readonly ListChange[] }) {
  const kinds = useColumnKinds();
  const besides = rows.some((it) => it.also !== '');
  const columns = useMemo(
    () => [
      kinds.text<ListChange>('code', 'Code', (it) => it.code),
      kinds.text<ListChange>('description', 'Description', (it) => it.description, { cut: true, width: 160 }),
      {
        ...kinds.unitCost<ListChange>('before', 'Before', (it) => it.before ?? 0),
        cell: (it: ListChange) => (it.before === null ? <span className="note">new</span> : showUnitCostFull(it.before)),
      },
      kinds.unitCost<ListChange>('after', 'After', (it) => it.after),
      ...(besides ? [kinds.text<ListChange>('also', 'Also changed', (it) => it.also)] : []),
    ],
    [kinds, besides],
  );
  return (
    <div>
      <h3>{title}</h3>
      {rows.length === 0 ? (
        <p className="note m-0">None.</p>
      ) : (
        <Table label={title} columns={columns} rows={rows} rowKey={(it) => it.code} height={190} />
      )}
    </div>
  );
}
