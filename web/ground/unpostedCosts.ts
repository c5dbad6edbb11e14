import { displayDate } from '../../core/calendar/displayDate';
import { displayQuantity } from '../../core/money/display';
import type { CostRow } from '../../wire/costs';
import { withKeys } from '../kit/draft/mergeRows';
import { readDraft, writeDraft } from '../kit/draft/storedDraft';
import type { GridRow } from '../kit/grid/gridTypes';

/** What the draft of costs typed and not posted is known by. */
export const UNPOSTED_COSTS = 'costs';

/** Lays posted entries out to be entered again, beneath what is being entered. */
export function layOutCosts(rows: readonly CostRow[], exact: (cents: number) => string): void {
  const before = readDraft(UNPOSTED_COSTS)?.rows ?? [];
  writeDraft(UNPOSTED_COSTS, { seen: '', base: [], rows: withKeys([...before, ...rows.map((row) => typedRow(row, exact))]) });
}

/** An entry as it is typed. */
function typedRow(row: CostRow, exact: (cents: number) => string): GridRow {
  return {
    dated: displayDate(row.dated),
    job: row.job,
    section: row.section,
    costCode: row.costCode,
    costType: row.costType,
    party: row.party,
    reference: row.reference,
    commitment: row.commitmentLine ?? '',
    description: row.description,
    hours: row.hours === null ? '' : displayQuantity(row.hours),
    quantity: row.quantity === null ? '' : displayQuantity(row.quantity),
    amount: exact(row.amount),
    uninstalled: row.uninstalled ? 'yes' : '',
    postedOn: row.postedOn === row.dated ? '' : displayDate(row.postedOn),
  };
}
