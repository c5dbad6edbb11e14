import { useSaveCheckTemplateMutation, useSaveChecklistMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import type { CheckItem, CheckTemplate } from '../../../wire/jobFile';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { useTyped, type OnTyped } from '../../kit/StableForm';

const COLUMNS: readonly GridColumn[] = [
  { key: 'item', title: 'Insurance, bond, permit …', width: 'auto' },
  { key: 'person', title: 'Who', width: 110 },
  { key: 'dueOn', title: 'Due', width: 100 },
  { key: 'doneOn', title: 'Done on', width: 100 },
];
const filled = (row: GridRow) => Object.values(row).some((text) => text.trim() !== '');

/** What must be there: who brings it, by when, and when it was. A list can be saved for other jobs. */
export function Checklist({
  job,
  items,
  templates,
  seen,
  onTyped,
}: {
  job: string;
  seen: string;
  onTyped: OnTyped;
  items: readonly CheckItem[];
  templates: readonly CheckTemplate[];
}) {
  const { month } = useAsOf();
  const start = useMemo(
    () =>
      items.map((it): GridRow => ({
        item: it.item,
        person: it.person,
        dueOn: displayDate(it.dueOn),
        doneOn: displayDate(it.doneOn),
      })),
    [items],
  );
  const [rows, setRows] = useState<GridRow[]>(start);
  const [name, setName] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const [save] = useSaveChecklistMutation();
  const [saveTemplate] = useSaveCheckTemplateMutation();
  const faults = new Map<string, string>();
  const list = rows.flatMap((row, i): CheckItem[] => {
    if (!filled(row)) return [];
    const day = (key: 'dueOn' | 'doneOn') => {
      const text = (row[key] ?? '').trim();
      const read = text === '' ? null : readDate(text, month);
      if (text !== '' && !read) faults.set(`${i}.${key}`, 'Enter a date, e.g. 30 Apr 2031');
      return read;
    };
    if ((row.item ?? '').trim() === '') faults.set(`${i}.item`, 'Expected what has to be there');
    return [{ item: (row.item ?? '').trim(), person: (row.person ?? '').trim(), dueOn: day('dueOn'), doneOn: day('doneOn') }];
  });
  const changed = JSON.stringify(list) !== JSON.stringify(items);
  useTyped(changed, onTyped);
  const attempt = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      setRefused(null);
      onTyped(false);
      toast(said);
    } catch (error) {
      setRefused(faultOf(error).message);
    }
  };
  const open = items.filter((it) => it.doneOn === null).length;
  return (
    <section aria-label="Checklist">
      <div className="mb-1 flex items-end justify-between">
        <h2>
          Checklist{' '}
          {items.length > 0 && (
            <span className="note text-[13px]">{open === 0 ? 'all done' : `${open} of ${items.length} to do`}</span>
          )}
        </h2>
        {changed && (
          <button
            type="button"
            className="button main"
            disabled={faults.size > 0}
            onClick={() => void attempt(() => save({ job, body: { items: list, seen } }).unwrap(), 'Checklist saved')}
          >
            Save checklist
          </button>
        )}
      </div>
      {refused && <Refused message={refused} />}
      <EntryGrid
        label="Checklist"
        columns={COLUMNS}
        rows={rows}
        onRows={setRows}
        faults={faults}
        height={220}
        blank={Math.max(3, rows.length + 1)}
      />
      <div className="mt-1 flex flex-wrap items-center gap-2 text-[13px]">
        {templates.map((it) => (
          <button
            key={it.name}
            type="button"
            className="button"
            onClick={() =>
              setRows([
                ...rows.filter(filled),
                ...it.items.filter((item) => !rows.some((row) => row.item === item)).map((item) => ({ item })),
              ])
            }
          >
            Lay in “{it.name}”
          </button>
        ))}
        <input
          className="box"
          style={{ width: 170 }}
          placeholder="Save this list as …"
          aria-label="Name to keep this list under"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button
          type="button"
          className="button"
          disabled={name.trim() === '' || list.length === 0}
          onClick={() =>
            void attempt(
              () => saveTemplate({ body: { name, items: list.map((it) => it.item) } }).unwrap(),
              `“${name}” is saved for other jobs`,
            )
          }
        >
          Save it
        </button>
      </div>
    </section>
  );
}
