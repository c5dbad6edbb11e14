import { useListsQuery, usePostCostsMutation, usePreviewCostsMutation } from '../../ground/api/api';
import { useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayQuantity } from '../../../core/money/display';
import type { CostPreview } from '../../../wire/costs';
import type { Lists } from '../../../wire/company';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { Refused, Waiting } from '../../kit/States';
import { tidyAmount } from '../../kit/typed/tidyAmount';
import { BatchPreview } from './BatchPreview';
import { readBatch } from './readBatch';

const KEPT = 'ledrin.costs.unposted';

/** Rows typed and not posted yet survive a reload and a change of page. */
function useStoredRows(): [GridRow[], (rows: GridRow[]) => void] {
  const [rows, setRows] = useState<GridRow[]>(() => {
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]');
      return Array.isArray(kept) ? (kept as GridRow[]) : [];
    } catch {
      return [];
    }
  });
  useEffect(() => localStorage.setItem(KEPT, JSON.stringify(rows)), [rows]);
  return [rows, setRows];
}

/** Fast entry of a batch of costs, previewed before it is posted. */
export function CostEntryPage() {
  const { month } = useAsOf();
  const { data: lists } = useListsQuery({ asOf: month });
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
  const { month, lastDay } = useAsOf();
  const { digits, exact, code } = useCurrency();
  const keep = useKeepMonth();
  const [rows, setRows] = useStoredRows();
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [preview, setPreview] = useState<CostPreview | null>(null);
  const [askPreview, previewing] = usePreviewCostsMutation();
  const [post, posting] = usePostCostsMutation();
  const read = useMemo(() => readBatch(rows, lists, month, digits), [rows, lists, month, digits]);
  const columns = useColumns(lists, month, digits);
  const faults = useMemo(() => {
    // A cell that is filled and wrong says so at once; what is still missing waits for the preview.
    const typedAt = (at: string) => {
      const [row, key] = at.split('.');
      return text(rows[Number(row)]?.[key!]);
    };
    const shown = new Map([...read.faults].filter(([at]) => asked || typedAt(at) !== ''));
    for (const fault of refused?.faults ?? []) {
      const [, line, key] = fault.field.split('.');
      if (line !== undefined && key) shown.set(`${read.rowOf[Number(line)]}.${key}`, fault.message);
    }
    return shown;
  }, [read, rows, asked, refused]);
  const change = (next: GridRow[]) => {
    setRows(next);
    setPreview(null);
    setRefused(null);
  };
  const ready = () => {
    setAsked(true);
    if (read.lines.length === 0) return false;
    if (read.faults.size > 0)
      setRefused({
        message: `${read.faults.size} ${read.faults.size === 1 ? 'cell needs' : 'cells need'} attention; see the notes beside them. Nothing is posted until they are correct.`,
        faults: [],
      });
    return read.faults.size === 0;
  };
  const showPreview = async () => {
    if (!ready()) return;
    setRefused(null);
    try {
      setPreview(await askPreview({ body: { lines: read.lines, asOf: lastDay } }).unwrap());
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const postBatch = async () => {
    if (!preview || !ready()) return;
    try {
      const posted = await post({ body: { lines: read.lines, asOf: lastDay, shown: asShown(preview) } }).unwrap();
      toast(
        `Posted ${posted.entries} ${posted.entries === 1 ? 'line' : 'lines'}, ${exact(posted.total)} (document ${posted.postingId})`,
      );
      setRows([]);
      setPreview(null);
      setAsked(false);
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  useHotkeys(
    'alt+p',
    (event) => {
      event.preventDefault();
      void showPreview();
    },
    { enableOnFormTags: true },
    [read, lastDay],
  );
  useHotkeys(
    'alt+enter',
    (event) => {
      event.preventDefault();
      void postBatch();
    },
    { enableOnFormTags: true },
    [read, preview, lastDay],
  );
  const count = `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}, ${exact(read.total)}`;
  const foot = (
    <tfoot>
      <tr style={{ background: 'var(--band)' }}>
        <td className="worked" colSpan={9} style={{ position: 'sticky', bottom: 0, background: 'var(--band)', fontWeight: 600 }}>
          {read.lines.length} {read.lines.length === 1 ? 'line' : 'lines'}
        </td>
        <td className="worked figure" style={{ position: 'sticky', bottom: 0, background: 'var(--band)', fontWeight: 600 }}>
          {displayQuantity(read.hours)}
        </td>
        <td className="worked figure" style={{ position: 'sticky', bottom: 0, background: 'var(--band)', fontWeight: 600 }}>
          {exact(read.total)}
        </td>
        <td className="worked" colSpan={3} style={{ position: 'sticky', bottom: 0, background: 'var(--band)' }} />
      </tr>
    </tfoot>
  );
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>Enter costs</h1>
        <Link className="button" to={keep('/costs/ledger')}>
          Cost ledger
        </Link>
      </div>
      <EntryGrid
        label="Costs to post"
        columns={columns}
        rows={rows}
        onRows={change}
        faults={faults}
        foot={foot}
        blank={12}
        height={preview ? 'calc(100vh - 470px)' : 'calc(100vh - 230px)'}
      />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className={preview ? 'button' : 'button main'}
          disabled={read.lines.length === 0 || previewing.isLoading}
          onClick={() => void showPreview()}
        >
          Preview {count}
        </button>
        <button
          type="button"
          className={preview ? 'button main' : 'button'}
          disabled={!preview || posting.isLoading}
          onClick={() => void postBatch()}
        >
          Post {count}
        </button>
        {rows.length > 0 && (
          <button type="button" className="button bare" onClick={() => change([])}>
            Clear all lines
          </button>
        )}
        <span className="note text-[12.5px]">
          Amounts in {code}. A day number on its own is taken as {displayDate(lastDay).replace(/^\d+ /, '')}. Paste from a
          spreadsheet works in any cell.
        </span>
      </div>
      {refused && <Refused message={refused.message} />}
      {preview && <BatchPreview preview={preview} />}
      {!preview && !refused && (
        <p className="note mt-4">
          Before anything is posted, the preview shows what is left of each budget line, what it does to the job, and the journal.
        </p>
      )}
    </div>
  );
}

function useColumns(lists: Lists, month: string, digits: number): GridColumn[] {
  return useMemo(() => {
    const jobOf = (row: GridRow) => lists.jobs.find((it) => it.number === text(row.job));
    const parties = [...lists.vendors.map((it) => ({ value: it.code, label: it.name }))];
    const date = (typed: string) => (readDate(typed, month) ? displayDate(readDate(typed, month)) : typed);
    return [
      { key: 'dated', title: 'Date', width: 98, tidy: date },
      {
        key: 'job',
        title: 'Job',
        width: 76,
        offers: () =>
          lists.jobs.filter((it) => it.status !== 'closed' && !it.locked).map((it) => ({ value: it.number, label: it.name })),
      },
      {
        key: 'section',
        title: 'Section',
        width: 112,
        offers: (row: GridRow) => (jobOf(row)?.sections ?? []).map((value) => ({ value, label: '' })),
      },
      {
        key: 'costCode',
        title: 'Code',
        width: 72,
        offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
      },
      { key: 'costType', title: 'Type', width: 98, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
      { key: 'party', title: 'Supplier / payee', width: 124, offers: () => parties },
      { key: 'reference', title: 'Reference', width: 104 },
      {
        key: 'commitment',
        title: 'PO / subcontract',
        width: 116,
        offers: (row: GridRow) =>
          lists.commitments
            .filter((it) => !row.job || it.job === text(row.job))
            .map((it) => ({ value: `${it.number}/${it.line}`, label: `${it.vendor}, ${it.costCode} ${it.costType}` })),
      },
      { key: 'hours', title: 'Hours', width: 66, numeric: true },
      { key: 'amount', title: 'Amount', width: 116, numeric: true, tidy: tidyAmount(digits) },
      { key: 'description', title: 'Description', width: 'auto' },
      {
        key: 'uninstalled',
        title: 'On site, not installed',
        width: 58,
        offers: () => [{ value: 'yes', label: 'delivered, not installed yet' }],
      },
    ];
  }, [lists, month, digits]);
}

const text = (value: string | undefined) => (value ?? '').trim();

/** The jobs as the preview showed them before the batch: the server posts only while they still stand so. */
function asShown({ jobs }: CostPreview) {
  return jobs.map(({ job, estimate, profit, overUnder }) => ({
    job,
    estimate: estimate[0],
    profit: profit[0],
    overUnder: overUnder[0],
  }));
}
