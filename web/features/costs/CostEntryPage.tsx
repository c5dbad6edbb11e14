import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import type { Lists } from '../../../wire/company';
import { useListsQuery } from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { SheetImport } from '../../ground/sheets/SheetImport';
import { isFilled } from '../../kit/grid/filledRow';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { PageHead } from '../../kit/PageHead';
import { Refused, Waiting } from '../../kit/States';
import { BatchPreview } from './BatchPreview';
import { useCostBatch, type CostBatch } from './useCostBatch';
import { useCostColumns } from './useCostColumns';

/** Fast entry of a batch of costs, previewed before it is posted. */
export function CostEntryPage() {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const keep = useKeepMonth();
  if (!lists) return <Waiting what="jobs and cost codes" />;
  if (lists.jobs.length === 0)
    return (
      <div className="page">
        <h1>Costs</h1>
        <p>
          There is no job to post to yet. <Link to={keep('/jobs/new')}>Set up the first job</Link>, or{' '}
          <Link to={keep('/set-up')}>import a book</Link>.
        </p>
      </div>
    );
  return <CostEntry lists={lists} />;
}

function CostEntry({ lists }: { lists: Lists }) {
  const batch = useCostBatch(lists);
  const columns = useCostColumns(lists, batch.codecs, batch.rows);
  const { preview, refused, read } = batch;
  return (
    <div className="page">
      <PageHead title="Enter costs">
        <div className="flex flex-wrap items-end gap-2">
          <SheetImport of="costs" columns={columns} onRows={(rows) => batch.change([...batch.rows.filter(isFilled), ...rows])} />
        </div>
      </PageHead>
      <EntryGrid
        key={batch.posted}
        autoFocus
        label="Costs to post"
        columns={columns}
        rows={batch.rows}
        onRows={batch.change}
        faults={batch.faults}
        foot={<BatchFoot read={read} />}
        blank={12}
        height={preview ? 'calc(100vh - 470px)' : 'calc(100vh - 230px)'}
      />
      <DraftNotes notice={batch.notice} />
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

function BatchActions({ batch }: { batch: CostBatch }) {
  const { lastDay } = useAsOf();
  const { exact, code } = useCurrency();
  const { read, preview, rows } = batch;
  const count = `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}, ${exact(read.total)}`;
  return (
    <div className="mt-3 flex items-center gap-3" data-own-keys>
      <button
        type="button"
        className={preview ? 'button' : 'button main'}
        disabled={read.lines.length === 0 || batch.previewing}
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
        Amounts in {code}. A day number on its own is taken as {displayDate(lastDay).replace(/^\d+ /, '')}. Space takes what
        stands in a cell in grey. Paste from a spreadsheet works in any cell.
      </span>
    </div>
  );
}

function BatchFoot({ read }: { read: CostBatch['read'] }) {
  const { exact } = useCurrency();
  return (
    <tfoot>
      <tr>
        <td className="worked grid-foot" colSpan={9}>
          {read.lines.length} {read.lines.length === 1 ? 'line' : 'lines'}
        </td>
        <td className="worked grid-foot figure">{displayQuantity(read.hours)}</td>
        <td className="worked grid-foot figure">{exact(read.total)}</td>
        <td className="worked grid-foot" colSpan={4} />
      </tr>
    </tfoot>
  );
}
