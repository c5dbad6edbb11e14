import { useReadSheetMutation } from '../api/api';
import { useRef, useState } from 'react';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { fillable, matchedRows, proposeMatching, type Matching } from '../../kit/grid/matchColumns';
import { Refused } from '../../kit/States';
import { Choice } from '../../kit/choice/Choice';
import { useAttempt } from '../useAttempt';

const KEPT = 'ledrin.sheet-columns';
const SHOWN_ROWS = 4;

/** What was matched before for sheets with the same heads, in this browser. */
function remembered(of: string, heads: readonly string[]): Matching | null {
  try {
    const all = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Matching>;
    return all[`${of}|${heads.join('|')}`] ?? null;
  } catch {
    return null;
  }
}

function remember(of: string, heads: readonly string[], matching: Matching): void {
  const all = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Matching>;
  localStorage.setItem(KEPT, JSON.stringify({ ...all, [`${of}|${heads.join('|')}`]: matching }));
}

interface ImportProps {
  /** What the rows are of: matchings are remembered by it. */
  of: string;
  columns: readonly GridColumn[];
  onRows: (rows: GridRow[]) => void;
}

/** Takes rows from a CSV or XLSX file into a grid, after its columns were matched with ours; the matching is remembered. */
export function SheetImport({ of, columns, onRows }: ImportProps) {
  const input = useRef<HTMLInputElement>(null);
  const [sheet, setSheet] = useState<string[][] | null>(null);
  const { refused, attempt } = useAttempt();
  const [read, { isLoading }] = useReadSheetMutation();
  const open = async (file: File | undefined) => {
    if (!file) return;
    const form = new FormData();
    form.append('file', file, file.name);
    await attempt(async () => setSheet(await read({ body: form }).unwrap()));
    if (input.current) input.current.value = '';
  };
  return (
    <>
      <label className="button cursor-pointer">
        {isLoading ? 'Reading …' : 'From a file, CSV or XLSX'}
        <input
          ref={input}
          type="file"
          accept=".csv,.xlsx,.txt"
          className="sr-only"
          onChange={(event) => void open(event.target.files?.[0])}
        />
      </label>
      {refused && <Refused message={refused.message} />}
      {sheet && <MatchColumns of={of} columns={columns} sheet={sheet} onRows={onRows} onClose={() => setSheet(null)} />}
    </>
  );
}

function MatchColumns({ of, columns, sheet, onRows, onClose }: ImportProps & { sheet: string[][]; onClose: () => void }) {
  const heads = sheet[0] ?? [];
  const [matching, setMatching] = useState(() => proposeMatching(columns, heads, remembered(of, heads)));
  const [hasHeads, setHasHeads] = useState(true);
  const rows = matchedRows(columns, matching, hasHeads ? sheet.slice(1) : sheet);
  const take = () => {
    remember(of, heads, matching);
    onRows(rows);
    onClose();
  };
  return (
    <section aria-label="Match the columns" className="sheet my-2 basis-full px-3 py-3">
      <div className="mb-2 flex items-center gap-4">
        <h3 className="grow">Which column goes where</h3>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={hasHeads} onChange={(event) => setHasHeads(event.target.checked)} /> the first row holds
          the heads
        </label>
      </div>
      <FirstRows columns={columns} sheet={sheet} hasHeads={hasHeads} matching={matching} onMatching={setMatching} />
      <div className="mt-2 flex gap-3">
        <button type="button" className="button main" disabled={rows.length === 0} onClick={take}>
          Take {rows.length} {rows.length === 1 ? 'row' : 'rows'}
        </button>
        <button type="button" className="button bare" onClick={onClose}>
          Leave it
        </button>
      </div>
    </section>
  );
}

interface FirstRowsProps {
  columns: readonly GridColumn[];
  sheet: string[][];
  hasHeads: boolean;
  matching: Matching;
  onMatching: (matching: Matching) => void;
}

/** The first rows of the file, and over each column where it goes. */
function FirstRows({ columns, sheet, hasHeads, matching, onMatching }: FirstRowsProps) {
  const width = Math.max(...sheet.map((row) => row.length));
  const places = Array.from({ length: width }, (_, at) => at);
  const choose = (at: number, key: string) => {
    const next = Object.fromEntries(Object.entries(matching).map(([own, to]) => [own, to === at ? null : to]));
    onMatching(key ? { ...next, [key]: at } : next);
  };
  return (
    <div className="scroll" tabIndex={0} role="region" aria-label="Columns of the file">
      <table className="ledger static-foot">
        <thead>
          <tr>
            {places.map((at) => (
              <th key={at}>
                <Choice
                  className="box"
                  aria-label={`Column ${at + 1} of the file goes to`}
                  value={Object.keys(matching).find((key) => matching[key] === at) ?? ''}
                  options={[['', 'leave out'], ...fillable(columns).map((it) => [it.key, it.title] as const)]}
                  onChange={(key) => choose(at, key)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sheet.slice(0, SHOWN_ROWS).map((row, i) => (
            <tr key={i} className={hasHeads && i === 0 ? 'note' : ''}>
              {places.map((at) => (
                <td key={at} className="truncate max-w-[220px]">
                  {row[at]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
