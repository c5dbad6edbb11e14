import { useId, useState } from 'react';
import { Field } from '../Field';
import { RemoveButton } from '../RemoveButton';
import type { EntryGridProps } from './EntryGrid';
import { ROW_KEY, type GridColumn, type GridRow } from './gridTypes';

type Props = Pick<EntryGridProps, 'label' | 'columns' | 'rows' | 'onRows' | 'faults'> & {
  /** What one row is called, such as “Row”. */
  each: string;
};

/** The rows of a grid on a window too narrow for it: one below the other, each with its cells as fields. */
export function EntryCards({ label, columns, rows, onRows, faults, each }: Props) {
  const shown: readonly GridRow[] = rows.length === 0 ? [{}] : rows;
  const set = (at: number, cells: GridRow) => onRows(shown.map((row, i) => (i === at ? { ...row, ...cells } : row)));
  return (
    <section aria-label={label}>
      {shown.map((row, i) => (
        <Card
          key={row[ROW_KEY] ?? i}
          title={`${each} ${i + 1}`}
          columns={columns}
          row={row}
          index={i}
          faults={faults}
          onCells={(cells) => set(i, cells)}
          onRemove={rows.length === 0 ? null : () => onRows(rows.filter((_, k) => k !== i))}
        />
      ))}
      <button type="button" className="button mt-2" onClick={() => onRows([...shown, {}])}>
        Add a row
      </button>
    </section>
  );
}

interface CardProps extends Pick<Props, 'columns' | 'faults'> {
  title: string;
  row: GridRow;
  index: number;
  onCells: (cells: GridRow) => void;
  onRemove: (() => void) | null;
}

function Card({ title, columns, row, index, faults, onCells, onRemove }: CardProps) {
  const typed = columns.filter((it) => !it.show);
  const proposed = proposals(typed, row, index);
  const field = (column: GridColumn) => (
    <CardField
      key={column.key}
      label={`${column.title}, row ${index + 1}`}
      column={column}
      row={row}
      index={index}
      fault={faults.get(`${index}.${column.key}`)}
      onText={(text) => onCells({ [column.key]: text })}
    />
  );
  return (
    <fieldset className="entry-card">
      <legend className="sr-only">{title}</legend>
      <div className="flex items-center gap-3">
        <b className="mr-auto">{title}</b>
        {proposed.length > 0 && (
          <button type="button" className="button bare" onClick={() => onCells(Object.fromEntries(proposed))}>
            Take {proposed.map(([, value]) => value).join(' · ')}
          </button>
        )}
        {onRemove && <RemoveButton label={`Remove ${title.toLowerCase()}`} onRemove={onRemove} />}
      </div>
      <div className="entry-card-fields">{typed.filter((it) => !it.numeric).map(field)}</div>
      <div className="entry-card-figures">{typed.filter((it) => it.numeric).map(field)}</div>
      <p className="m-0 flex flex-wrap gap-x-4">
        {columns.map(
          ({ key, title: head, show }) =>
            show && (
              <span key={key}>
                <span className="note">{head}</span> {show(row, index)}
              </span>
            ),
        )}
      </p>
    </fieldset>
  );
}

/** What the empty cells of a row would likely hold, each with what is proposed before it. */
function proposals(columns: readonly GridColumn[], row: GridRow, index: number): [key: string, value: string][] {
  const taken: [string, string][] = [];
  for (const { key, proposes } of columns) {
    if ((row[key] ?? '').trim() !== '') continue;
    const value = proposes?.({ ...row, ...Object.fromEntries(taken) }, index);
    if (value) taken.push([key, value]);
  }
  return taken;
}

interface CardFieldProps {
  label: string;
  column: GridColumn;
  row: GridRow;
  index: number;
  fault: string | undefined;
  onText: (text: string) => void;
}

/** A cell as a field: what is typed is tidied when it is left, and completed from what is offered. */
function CardField({ label, column, row, index, fault, onText }: CardFieldProps) {
  const id = useId();
  const [focused, setFocused] = useState(false);
  const value = row[column.key] ?? '';
  const offers = focused && column.offers ? column.offers(row) : [];
  return (
    <div>
      <Field label={column.title} {...(fault !== undefined && { fault })}>
        <input
          aria-label={label}
          className={column.numeric ? 'num' : ''}
          inputMode={column.numeric ? 'decimal' : 'text'}
          autoComplete="off"
          spellCheck={false}
          list={column.offers ? `${id}-offers` : undefined}
          placeholder={column.proposes?.(row, index) ?? undefined}
          value={value}
          onChange={(event) => onText(event.target.value)}
          onFocus={() => setFocused(true)}
          onBlur={() => {
            setFocused(false);
            const tidy = column.tidy?.(value) ?? value;
            if (tidy !== value) onText(tidy);
          }}
        />
      </Field>
      {offers.length > 0 && (
        <datalist id={`${id}-offers`}>
          {offers.map((it) => (
            <option key={it.value} value={it.value}>
              {it.label}
            </option>
          ))}
        </datalist>
      )}
    </div>
  );
}
