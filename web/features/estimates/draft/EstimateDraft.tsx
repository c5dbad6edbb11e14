import { at } from '../../../../core/errors/known';
import { useMemo, useState } from 'react';
import type { EstimateView } from '../../../../wire/estimates';
import type { PriceListView } from '../../../../wire/prices';
import type { Lists } from '../../../../wire/company';
import { useCurrency } from '../../../ground/company';
import { RepeatSection } from '../../../kit/grid/RepeatSection';
import { SheetImport } from '../../../ground/sheets/SheetImport';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import { newKey } from '../../../kit/draft/mergeRows';
import { ROW_KEY, type GridColumn, type GridRow } from '../../../kit/grid/gridTypes';
import { repeatRows } from '../../../kit/grid/repeatRows';
import type { FormContext } from './estimateForm';
import { EstimateActions } from './EstimateActions';
import { EstimateFoot } from '../EstimateFoot';
import { SaveNote } from './SaveNote';
import { LineParts } from './LineParts';
import { useEstimate } from './useEstimate';

interface DraftProps {
  view: EstimateView;
  book: PriceListView;
  lists: Lists;
  context: Omit<FormContext, 'buildUps'>;
  onStale: () => void;
}

/** A draft: its lines on a sheet, what the chosen line is made of beneath, and the way from cost to price beside. */
export function EstimateDraft({ view, book, lists, context, onStale }: DraftProps) {
  const estimate = useEstimate(view, book, context, onStale);
  const { form, setForm, read, priced, settle } = estimate;
  const [row, setRow] = useState(0);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <div className="mb-2 flex items-center gap-3">
          <input
            className="box w-[220px] font-semibold"
            aria-label="Name of the estimate"
            aria-invalid={read.faults.has('name') || undefined}
            value={form.name}
            onChange={(event) => setForm({ ...form, name: event.target.value })}
          />
          <EstimateActions view={view} settle={settle} onGone={estimate.forget} />
        </div>
        <Lines estimate={estimate} number={view.number} book={book} onRow={setRow} />
        <ChosenLine estimate={estimate} row={row} book={book} lists={lists} />
      </div>
      <EstimateFoot form={form} setForm={setForm} totals={priced.totals} faults={read.faults} />
    </div>
  );
}

type Estimate = ReturnType<typeof useEstimate>;

/** The line typed in a row, with what it comes to; null where the row is not one. */
function lineAt({ read, priced }: Estimate, row: number) {
  const place = read.places[row];
  if (place === null || place === undefined) return null;
  return { line: at(read.content.lines, place), priced: at(priced.lines, place) };
}

function Lines({
  estimate,
  number,
  book,
  onRow,
}: {
  estimate: Estimate;
  number: number;
  book: PriceListView;
  onRow: (row: number) => void;
}) {
  const { form, setForm, read, saving } = estimate;
  const { show } = useCurrency();
  const faults = useMemo(
    () => new Map([...read.faults].filter(([key]) => key.startsWith('lines.')).map(([key, text]) => [key.slice(6), text])),
    [read.faults],
  );
  const sections = [...new Set(form.lines.map((it) => (it.section ?? '').trim()))].filter(Boolean);
  const columns = lineColumns(estimate, book, sections, show);
  const onLines = (lines: GridRow[]) => setForm((before) => ({ ...before, lines: withBuildUps(lines, before.lines, book) }));
  return (
    <>
      <EntryGrid
        label={`Lines of estimate ${number}`}
        columns={columns}
        rows={form.lines}
        onRows={onLines}
        history={estimate.history}
        autoFocus={form.lines.length === 0}
        faults={faults}
        foot={<Totals estimate={estimate} />}
        height="calc(100vh - 425px)"
        blank={Math.max(6, form.lines.length + 2)}
        onRow={onRow}
      />
      <div className="mt-1 flex flex-wrap items-center gap-3">
        <SaveNote saving={saving} faults={read.faults.size} />
        <RepeatSection sections={sections} onRepeat={(section, names) => setForm((before) => repeated(before, section, names))} />
        <SheetImport
          of="estimate"
          columns={columns}
          onRows={(rows) => onLines([...form.lines.filter((it) => it.line || it.description), ...rows])}
        />
      </div>
    </>
  );
}

function lineColumns(
  estimate: Estimate,
  book: PriceListView,
  sections: readonly string[],
  show: (cents: number) => string,
): GridColumn[] {
  return [
    { key: 'line', title: 'Line', width: 58 },
    {
      key: 'section',
      title: 'Section',
      width: 104,
      offers: () => sections.map((value) => ({ value, label: '' })),
    },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'quantity', title: 'Quantity', width: 78, numeric: true },
    { key: 'unit', title: 'Unit', width: 46 },
    {
      key: 'buildUp',
      title: 'Build-up',
      width: 104,
      offers: () => book.buildUps.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'markup', title: 'Markup %', width: 66, numeric: true },
    { key: 'cost', title: 'Cost', width: 96, numeric: true, show: (_, i) => show(lineAt(estimate, i)?.priced.cost ?? 0) },
    {
      key: 'net',
      title: 'Cost and markup',
      width: 100,
      numeric: true,
      show: (_, i) => show(lineAt(estimate, i)?.priced.net ?? 0),
    },
  ];
}

/** A build-up chosen on a line that says nothing else brings its description and unit. */
function withBuildUps(lines: readonly GridRow[], before: readonly GridRow[], book: PriceListView): GridRow[] {
  return lines.map((row, i) => {
    const buildUp = row.buildUp !== before[i]?.buildUp ? book.buildUps.find((it) => it.code === row.buildUp) : undefined;
    if (!buildUp) return row;
    return { ...row, description: row.description || buildUp.description, unit: row.unit || buildUp.unit };
  });
}

/** The lines of a section once more for each lot, with what is priced on them alone. */
function repeated(form: Estimate['form'], section: string, names: string[]): Estimate['form'] {
  const own = form.lines.filter((it) => (it.section ?? '').trim() === section);
  const parts = { ...form.parts };
  const lines = repeatRows(form.lines, section, names, 'line').map((line, i) => {
    const key = newKey();
    const from = parts[at(own, i % own.length)[ROW_KEY] ?? ''];
    if (from) parts[key] = from;
    return { ...line, [ROW_KEY]: key };
  });
  return { ...form, lines: [...form.lines.filter((it) => it.line || it.description), ...lines], parts };
}

function Totals({ estimate: { priced } }: { estimate: Estimate }) {
  const { show } = useCurrency();
  const cells = ['', 'Total', '', '', '', '', '', '', show(priced.totals.cost), show(priced.totals.net), ''];
  return (
    <tfoot>
      <tr>
        {cells.map((text, i) => (
          <td key={i} className={`worked grid-foot ${i > 7 ? 'figure' : ''}`}>
            {text}
          </td>
        ))}
      </tr>
    </tfoot>
  );
}

/** What the line under the cursor is made of. */
function ChosenLine({ estimate, row, book, lists }: { estimate: Estimate; row: number; book: PriceListView; lists: Lists }) {
  const { form, setForm, read, prices } = estimate;
  const typed = form.lines[row];
  const id = typed?.[ROW_KEY];
  const chosen = lineAt(estimate, row);
  if (!typed || !id) return <p className="note">Put the cursor on a line to see what it is made of, and to add to it.</p>;
  return (
    <LineParts
      key={id}
      id={id}
      line={chosen?.line ?? null}
      cost={chosen?.priced ?? null}
      shares={prices.get(typed.buildUp ?? '') ?? []}
      rows={form.parts[id] ?? []}
      onRows={(rows) => setForm((before) => ({ ...before, parts: { ...before.parts, [id]: rows } }))}
      faults={read.faults}
      book={book}
      lists={lists}
    />
  );
}
