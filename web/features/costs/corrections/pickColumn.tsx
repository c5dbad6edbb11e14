import type { CostRow } from '../../../../wire/costs';
import type { TableColumn } from '../../../kit/table/tableTypes';
import { isFree, type Picks } from './usePicks';

/** A box to pick an entry with; by the keyboard, Space picks the rows that are selected. */
export function pickColumn(picks: Picks): TableColumn<CostRow> {
  return {
    key: 'pick',
    title: <span className="sr-only">Picked</span>,
    label: 'Picked',
    width: 26,
    cell: (it) =>
      isFree(it) && (
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={`Pick ${it.reference}, ${it.costCode}`}
          checked={picks.has(it.id)}
          onChange={() => picks.toggle([it])}
        />
      ),
  };
}
