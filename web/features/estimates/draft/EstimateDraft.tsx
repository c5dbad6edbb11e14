import { present } from '../../../../core/errors/known';
import { useMemo, useState } from 'react';
import type { EstimateView } from '../../../../wire/estimates';
import type { PriceBookView } from '../../../../wire/prices';
import type { Lists } from '../../../../wire/company';
import { useCurrency } from '../../../ground/company';
import { RepeatSection } from '../../../kit/grid/RepeatSection';
import { SheetImport } from '../../../ground/sheets/SheetImport';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../../kit/grid/gridTypes';
import { repeatRows } from '../../../kit/grid/repeatRows';
import type { FormContext } from './estimateForm';
import { EstimateActions } from './EstimateActions';
import { EstimateFoot } from '../EstimateFoot';
import { SaveNote } from './SaveNote';
import { LineParts } from './LineParts';
import { useEstimate } from './useEstimate';

interface DraftProps {
  view: EstimateView;
  book: PriceBookView;
  lists: Lists;
  context: Omit<FormContext, 'buildUps'>;
}

let lastId = 0;

/** A draft: its lines on a sheet, what the chosen line is made of beneath, and the way from cost to price beside. */
export function EstimateDraft({ view, book, lists, context }: DraftProps) {
  const { show } = useCurrency();
  const { form, setForm, read, priced, prices, keeping, settle } = useEstimate(view, book, context);
  const [at, setAt] = useState(0);
  const faults = useMemo(
    () => new Map([...read.faults].filter(([key]) => key.startsWith('lines.')).map(([key, text]) => [key.slice(6), text])),
    [read.faults],
  );
  const lineAt = (row: number) => {
    const place = read.places[row];
    return place === null || place === undefined
      ? null
      : { line: present(read.content.lines[place]), priced: present(priced.lines[place]) };
  };
  const columns: GridColumn[] = [
    { key: 'line', title: 'Line', width: 58 },
    {
      key: 'section',
      title: 'Section',
      width: 104,
      offers: () =>
        [...new Set(form.lines.map((row) => row.section ?? ''))].filter(Boolean).map((value) => ({ value, label: '' })),
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
    { key: 'cost', title: 'Cost', width: 96, numeric: true, show: (_, i) => show(lineAt(i)?.priced.cost ?? 0) },
    { key: 'net', title: 'Cost and markup', width: 100, numeric: true, show: (_, i) => show(lineAt(i)?.priced.net ?? 0) },
  ];
  /** New rows get an id; a build-up chosen on a line that says nothing else brings its description and unit. */
  const onLines = (lines: GridRow[]) =>
    setForm((before) => ({
      ...before,
      lines: lines.map((row, i) => {
        const known = before.lines[i];
        const buildUp = row.buildUp !== known?.buildUp ? book.buildUps.find((it) => it.code === row.buildUp) : undefined;
        const id = row.id ?? `new-${++lastId}`;
        if (!buildUp) return row.id ? row : { ...row, id };
        return { ...row, id, description: row.description || buildUp.description, unit: row.unit || buildUp.unit };
      }),
    }));
  const sections = [...new Set(form.lines.map((it) => (it.section ?? '').trim()))].filter(Boolean);
  /** The lines of a section once more for each lot, with what is priced on them alone. */
  const repeat = (section: string, names: string[]) =>
    setForm((before) => {
      const own = before.lines.filter((it) => (it.section ?? '').trim() === section);
      const parts = { ...before.parts };
      const lines = repeatRows(before.lines, section, names, 'line').map((line, i) => {
        const id = `new-${++lastId}`;
        const from = parts[present(own[i % own.length]).id ?? ''];
        if (from) parts[id] = from;
        return { ...line, id };
      });
      return { ...before, lines: [...before.lines.filter((it) => it.line || it.description), ...lines], parts };
    });
  const row = form.lines[at];
  const chosen = lineAt(at);
  const foot = (
    <tfoot>
      <tr>
        {['', 'Total', '', '', '', '', '', '', show(priced.totals.cost), show(priced.totals.net), ''].map((text, i) => (
          <td
            key={i}
            className={`worked ${i > 7 ? 'figure' : ''}`}
            style={{ position: 'sticky', bottom: 0, background: 'var(--band)', fontWeight: 600 }}
          >
            {text}
          </td>
        ))}
      </tr>
    </tfoot>
  );
  return (
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 300px' }}>
      <div>
        <div className="mb-2 flex items-center gap-3">
          <input
            className="box"
            aria-label="Name of the estimate"
            aria-invalid={read.faults.has('name') || undefined}
            style={{ width: 220, fontWeight: 600 }}
            value={form.name}
            onChange={(event) => setForm({ ...form, name: event.target.value })}
          />
          <EstimateActions view={view} settle={settle} />
        </div>
        <EntryGrid
          label={`Lines of estimate ${view.number}`}
          columns={columns}
          rows={form.lines}
          onRows={onLines}
          faults={faults}
          foot={foot}
          height="calc(100vh - 425px)"
          blank={Math.max(6, form.lines.length + 2)}
          onRow={setAt}
        />
        <div className="mt-1 flex flex-wrap items-center gap-3">
          <SaveNote keeping={keeping} faults={read.faults.size} />
          <RepeatSection sections={sections} onRepeat={repeat} />
          <SheetImport
            of="estimate"
            columns={columns}
            onRows={(rows) => onLines([...form.lines.filter((it) => it.line || it.description), ...rows])}
          />
        </div>
        {row?.id ? (
          <LineParts
            key={row.id}
            id={row.id}
            line={chosen?.line ?? null}
            cost={chosen?.priced ?? null}
            shares={prices.get(row.buildUp ?? '') ?? []}
            rows={form.parts[row.id] ?? []}
            onRows={(rows) => setForm((before) => ({ ...before, parts: { ...before.parts, [present(row.id)]: rows } }))}
            faults={read.faults}
            book={book}
            lists={lists}
          />
        ) : (
          <p className="note">Put the cursor on a line to see what it is made of, and to add to it.</p>
        )}
      </div>
      <EstimateFoot form={form} setForm={setForm} totals={priced.totals} faults={read.faults} />
    </div>
  );
}
