import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { toast } from '../../kit/toast';
import type { Lists } from '../../../wire/company';
import type { CostPreview } from '../../../wire/costs';
import { usePostCostsMutation, usePreviewCostsMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { UNPOSTED_COSTS } from '../../ground/unpostedCosts';
import { useDraftRows } from '../../kit/draft/useDraftRows';
import type { GridRow } from '../../kit/grid/gridTypes';
import { actByKey, actFailed } from '../../kit/actsByKey';
import { costCodecs, readBatch } from './readBatch';

const NOTHING: readonly GridRow[] = [];

export type CostBatch = ReturnType<typeof useCostBatch>;

/** A batch of costs as it is typed: how it reads, its preview, and its posting. */
export function useCostBatch(lists: Lists) {
  const { month, lastDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const { rows, setRows, notice, forget } = useDraftRows({ name: UNPOSTED_COSTS, seen: '', start: NOTHING });
  /** How many batches were posted here: each is typed on a new sheet, so that no key brings back what is posted. */
  const [posted, setPosted] = useState(0);
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [preview, setPreview] = useState<CostPreview | null>(null);
  const [askPreview, previewing] = usePreviewCostsMutation();
  const [post, posting] = usePostCostsMutation();
  const codecs = useMemo(() => costCodecs(lists, month, digits), [lists, month, digits]);
  const read = useMemo(() => readBatch(rows, codecs), [rows, codecs]);
  const faults = useMemo(() => shownFaults(read, rows, asked, refused), [read, rows, asked, refused]);
  const ready = () => {
    const count = read.faults.size;
    setAsked(true);
    if (read.lines.length === 0) return false;
    if (count > 0)
      setRefused({
        message: `${count} ${count === 1 ? 'cell needs' : 'cells need'} attention; go to a cell to see why. Nothing is posted until they are correct.`,
        faults: [],
      });
    return count === 0;
  };
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      setRefused(faultOf(error));
      actFailed();
    }
  };
  const batch = { lines: read.lines, asOf: lastDay };
  const showPreview = async () => {
    if (!ready()) return;
    setRefused(null);
    await attempt(async () => setPreview(await askPreview({ body: batch }).unwrap()));
  };
  const postBatch = async () => {
    if (!preview || !ready()) return;
    await attempt(async () => {
      const { entries, total, postingId } = await post({ body: { ...batch, shown: asShown(preview) } }).unwrap();
      // Pressed twice it is posted once, and said once.
      const id = `posting-${postingId}`;
      toast(`Posted ${entries} ${entries === 1 ? 'line' : 'lines'}, ${exact(total)} (document ${postingId})`, { id });
      setRows([]);
      forget();
      setPosted((count) => count + 1);
      setPreview(null);
      setRefused(null);
      setAsked(false);
    });
  };
  useKey('alt+p', showPreview, [read, lastDay]);
  useKey('alt+enter', () => actByKey(postBatch), [read, preview, lastDay]);
  return {
    rows,
    notice,
    posted,
    codecs,
    read,
    faults,
    refused,
    preview,
    showPreview,
    postBatch,
    previewing: previewing.isLoading,
    posting: posting.isLoading,
    change: (next: GridRow[]) => {
      setRows(next);
      setPreview(null);
      setRefused(null);
    },
  };
}

function useKey(key: string, work: () => unknown, on: readonly unknown[]): void {
  const press = (event: KeyboardEvent) => {
    event.preventDefault();
    void work();
  };
  useHotkeys(key, press, { enableOnFormTags: true }, [...on]);
}

/** A cell that is filled and wrong says so at once; what is still missing waits for the preview. */
function shownFaults(
  read: ReturnType<typeof readBatch>,
  rows: readonly GridRow[],
  asked: boolean,
  refused: ShownFault | null,
): ReadonlyMap<string, string> {
  const typedAt = (at: string) => {
    const [row, key = ''] = at.split('.');
    return (rows[Number(row)]?.[key] ?? '').trim();
  };
  const shown = new Map([...read.faults].filter(([at]) => asked || typedAt(at) !== ''));
  for (const fault of refused?.faults ?? []) {
    const [, line, key] = fault.field.split('.');
    if (line !== undefined && key) shown.set(`${read.rowOf[Number(line)]}.${key}`, fault.message);
  }
  return shown;
}

/** The jobs as the preview showed them before the batch: the server posts only while they still stand so. */
function asShown({ jobs }: CostPreview) {
  return jobs.map(({ job, estimate, profit, overUnder }) => ({
    job,
    estimate: estimate[0],
    profit: profit[0],
    overUnder: overUnder[0],
  }));
}
