import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import type { Lists } from '../../../wire/company';
import type { PriceItemInput } from '../../../wire/prices';
import { useListsQuery, usePriceListQuery, useSessionQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { unknownVendors } from '../../../core/costs/vendorOf';
import { May } from '../../ground/person';
import { NewCodes, useAddingCodes } from '../../ground/costCodes/NewCodes';
import { unknownCodes } from '../../ground/costCodes/unknownCodes';
import { NewVendors } from '../../ground/vendors/NewVendors';
import { SheetImport } from '../../ground/sheets/SheetImport';
import { isFilled } from '../../kit/grid/filledRow';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { ColumnChoice, useHiddenColumns } from '../../kit/ColumnChoice';
import { GridFoot } from '../../kit/grid/GridFoot';
import type { GridColumn } from '../../kit/grid/gridTypes';
import { PageHead } from '../../kit/PageHead';
import { Refused, Waiting } from '../../kit/States';
import { withChosenItems } from './chosenItem';
import { BatchPreview } from './BatchPreview';
import { useCostBatch, type CostBatch } from './useCostBatch';
import { lateDay } from './readBatch';
import { useCostColumns } from './useCostColumns';

/** Fast entry of a batch of costs, previewed before it is posted. */
export function CostEntryPage() {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const withMonth = useWithMonth();
  if (!lists) return <Waiting what="jobs and cost codes" />;
  if (lists.jobs.length === 0)
    return (
      <div className="page">
        <h1>Costs</h1>
        <p>
          There is no job to post to yet. <Link to={withMonth('/jobs/new')}>Set up the first job</Link>, or{' '}
          <Link to={withMonth('/set-up')}>import a book</Link>.
        </p>
      </div>
    );
  return <CostEntry lists={lists} />;
}

/** Columns that can be hidden: Tab then passes them. */
const CHOSEN: ReadonlySet<string> = new Set([
  'item',
  'section',
  'commitment',
  'hours',
  'description',
  'uninstalled',
  'postedOn',
  'quantity',
  'charge',
  'chargeFrom',
  'markup',
]);
/** What few lines need is hidden until somebody chooses. */
const USUALLY_HIDDEN = {
  below: Infinity,
  columns: ['item', 'commitment', 'uninstalled', 'postedOn', 'quantity', 'charge', 'chargeFrom', 'markup'],
};

function CostEntry({ lists }: { lists: Lists }) {
  const batch = useCostBatch(lists);
  const [hidden, hide] = useHiddenColumns('ledrin.cost-entry-columns', USUALLY_HIDDEN);
  const items = useItems(!hidden.has('item') || batch.rows.some((row) => (row.item ?? '').trim() !== ''));
  const columns = useCostColumns(lists, batch.codecs, batch.rows, items);
  // A column in which something stands is shown, whatever was chosen: nothing is posted unseen.
  const { data: session } = useSessionQuery();
  const closedTo = session?.closedTo ?? null;
  const used = useMemo(() => {
    const isTyped = (key: string) => batch.rows.some((row) => (row[key] ?? '').trim() !== '');
    const isLate = batch.rows.some((row) => lateDay(row, batch.codecs, closedTo) !== null);
    return new Set(columns.filter(({ key }) => isTyped(key) || (isLate && key === 'postedOn')).map((it) => it.key));
  }, [columns, batch.rows, batch.codecs, closedTo]);
  const unseen = useMemo(() => {
    const keys = new Set([...hidden].filter((key) => !used.has(key)));
    // The unit stands beside its quantity.
    return keys.has('quantity') ? keys.add('unit') : keys;
  }, [hidden, used]);
  const shown = columns.filter(({ key }) => !unseen.has(key));
  const { preview, refused, read } = batch;
  return (
    <div className="page">
      <PageHead title="Enter costs">
        <div className="flex flex-wrap items-end gap-2">
          <ColumnChoice columns={columns.filter(({ key }) => CHOSEN.has(key))} hidden={hidden} onHide={hide} />
          <SheetImport of="costs" columns={columns} onRows={(rows) => batch.change([...batch.rows.filter(isFilled), ...rows])} />
        </div>
      </PageHead>
      <EntryGrid
        key={batch.posted}
        autoFocus
        label="Costs to post"
        columns={columns}
        hidden={unseen}
        rows={batch.rows}
        onRows={(next) => batch.change(withChosenItems(next, batch.rows, items))}
        faults={batch.faults}
        foot={<BatchFoot read={read} columns={shown} />}
        blank={12}
        height={preview ? 'calc(100vh - 470px)' : 'calc(100vh - 230px)'}
      />
      <DraftNotes notice={batch.notice} />
      <May do="set-up">
        <NewCodes
          codes={unknownCodes(
            batch.rows.map((it) => it.costCode),
            new Set(lists.costCodes.map((it) => it.code)),
          )}
        />
        <NewVendors
          names={unknownVendors(
            batch.rows.map((it) => ({ costType: it.costType ?? '', party: it.party ?? '' })),
            lists.vendors,
          )}
          vendors={lists.vendors}
          onAdded={(name, code) =>
            batch.change(batch.rows.map((it) => ((it.party ?? '').trim() === name ? { ...it, party: code } : it)))
          }
        />
      </May>
      <BatchActions batch={batch} />
      {refused && <Refused message={refused.message} />}
      {preview && <BatchPreview preview={preview} rowOf={read.rowOf} />}
      {!preview && !refused && (
        <p className="note mt-4">
          Before anything is posted, the preview shows what is left of each budget line, what it does to the job, and the journal.
        </p>
      )}
    </div>
  );
}

const NO_ITEMS: ReadonlyMap<string, PriceItemInput> = new Map();

/** The items of the price list by code, once they are wanted. */
function useItems(wanted: boolean): ReadonlyMap<string, PriceItemInput> {
  const { data } = usePriceListQuery(undefined, { skip: !wanted });
  return useMemo(() => (data ? new Map(data.items.map((it) => [it.code, it])) : NO_ITEMS), [data]);
}

function BatchActions({ batch }: { batch: CostBatch }) {
  const { lastDay } = useAsOf();
  const { exact, code } = useCurrency();
  const { read, preview, rows } = batch;
  const addingCodes = useAddingCodes();
  const count = `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}, ${exact(read.total)}`;
  return (
    <div className="mt-3 flex items-center gap-3" data-own-keys>
      <button
        type="button"
        className={preview ? 'button' : 'button main'}
        disabled={read.lines.length === 0 || batch.previewing || addingCodes}
        onClick={() => void batch.showPreview()}
      >
        Preview {count}
      </button>
      <button
        type="button"
        className={preview ? 'button main' : 'button'}
        disabled={!preview || batch.posting}
        onClick={() => void batch.postBatch()}
      >
        Post {count}
      </button>
      {rows.length > 0 && (
        <button type="button" className="button bare" onClick={() => batch.change([])}>
          Clear all lines
        </button>
      )}
      <span className="note text-[12.5px]">
        Amounts in {code}. A day number on its own is taken as {displayDate(lastDay).replace(/^\d+ /, '')}. Press Space to accept
        a grey suggestion. Paste from a spreadsheet works in any cell.
      </span>
    </div>
  );
}

function BatchFoot({ read, columns }: { read: CostBatch['read']; columns: readonly GridColumn[] }) {
  const { exact } = useCurrency();
  const count = `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}`;
  const sums: Readonly<Record<string, string>> = { hours: displayQuantity(read.hours), amount: exact(read.total) };
  return <GridFoot cells={columns.map(({ key }, i) => (i === 0 ? count : (sums[key] ?? '')))} grows />;
}
