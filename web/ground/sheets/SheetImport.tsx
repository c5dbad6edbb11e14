import { useReadSheetMutation } from '../api/api';
import { useRef, useState } from 'react';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { fillable, matchedRows, proposeMatching, type Matching } from '../../kit/grid/matchColumns';
import { Refused } from '../../kit/States';
import { faultOf } from '../faults';

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

/** Takes rows from a CSV or XLSX file into a grid, after its columns were matched with ours; the matching is remembered. */
export function SheetImport({
  of,
  columns,
  onRows,
}: {
  of: string;
  columns: readonly GridColumn[];
  onRows: (rows: GridRow[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [sheet, setSheet] = useState<string[][] | null>(null);
  const [matching, setMatching] = useState<Matching>({});
  const [hasHeads, setHasHeads] = useState(true);
  const [fault, setFault] = useState<string | null>(null);
  const [read, { isLoading }] = useReadSheetMutation();
  const open = async (file: File | undefined) => {
    if (!file) return;
    const form = new FormData();
    form.append('file', file, file.name);
    setFault(null);
    try {
      const rows = await read({ body: form }).unwrap();
      setSheet(rows);
      setMatching(proposeMatching(columns, rows[0] ?? [], remembered(of, rows[0] ?? [])));
    } catch (error) {
      setFault(faultOf(error).message);
    }
    if (input.current) input.current.value = '';
  };
  const take = () => {
    if (!sheet) return;
    remember(of, sheet[0] ?? [], matching);
    onRows(matchedRows(columns, matching, hasHeads ? sheet.slice(1) : sheet));
    setSheet(null);
  };
  const rows = sheet ? matchedRows(columns, matching, hasHeads ? sheet.slice(1) : sheet) : [];
  const width = sheet ? Math.max(...sheet.map((row) => row.length)) : 0;
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
      {fault && <Refused message={fault} />}
      {sheet && (
        <section aria-label="Match the columns" className="sheet my-2 basis-full px-3 py-3">
          <div className="mb-2 flex items-center gap-4">
            <h3 className="grow">Which column goes where</h3>
            <label className="flex items-center gap-2">
              <input type="checkbox" checked={hasHeads} onChange={(event) => setHasHeads(event.target.checked)} /> the first row
              holds the heads
            </label>
          </div>
          <div className="scroll" tabIndex={0} role="region" aria-label="Columns of the file">
            <table className="ledger static-foot">
              <thead>
                <tr>
                  {Array.from({ length: width }, (_, at) => (
                    <th key={at}>
                      <select
                        className="box"
                        aria-label={`Column ${at + 1} of the file goes to`}
                        value={Object.keys(matching).find((key) => matching[key] === at) ?? ''}
                        onChange={(event) => {
                          const next = Object.fromEntries(
                            Object.entries(matching).map(([key, to]) => [key, to === at ? null : to]),
                          );
                          if (event.target.value) next[event.target.value] = at;
                          setMatching(next);
                        }}
                      >
                        <option value="">leave out</option>
                        {fillable(columns).map((it) => (
                          <option key={it.key} value={it.key}>
                            {it.title}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {sheet.slice(0, SHOWN_ROWS).map((row, i) => (
                  <tr key={i} className={hasHeads && i === 0 ? 'note' : ''}>
                    {Array.from({ length: width }, (_, at) => (
                      <td key={at} className="truncate max-w-[220px]">
                        {row[at]}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="mt-2 flex gap-3">
            <button type="button" className="button main" disabled={rows.length === 0} onClick={take}>
              Take {rows.length} {rows.length === 1 ? 'row' : 'rows'}
            </button>
            <button type="button" className="button bare" onClick={() => setSheet(null)}>
              Leave it
            </button>
          </div>
        </section>
      )}
    </>
  );
}
