import { isFilled } from '../../kit/grid/filledRow';
import { columnsOf, readRows, rowOf } from '../../kit/grid/rowCodecs';
import { stableText } from '../../../core/lists/stableText';
import { day, optional, words, type Faults } from '../../kit/typed/codecs';
import { useSaveCheckTemplateMutation, useSaveChecklistMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import type { CheckItem, CheckTemplate } from '../../../wire/jobFile';
import { useAsOf } from '../../ground/asOf';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Refused } from '../../kit/States';
import { useTyped, type OnTyped } from '../../kit/StableForm';

const COLUMNS: readonly GridColumn[] = [
  { key: 'item', title: 'Insurance, bond, permit …', width: 'auto' },
  { key: 'person', title: 'Who', width: 110 },
  { key: 'dueOn', title: 'Due', width: 110 },
  { key: 'doneOn', title: 'Done on', width: 110 },
];

/** How the columns of the list are read. */
const checkCodecs = (month: string) => ({
  item: words('Expected what has to be there'),
  person: words(),
  dueOn: optional(day(month), null),
  doneOn: optional(day(month), null),
});

interface ChecklistProps {
  job: string;
  seen: string;
  onTyped: OnTyped;
  items: readonly CheckItem[];
  templates: readonly CheckTemplate[];
}

/** What must be there: who brings it, by when, and when it was. A list can be saved for other jobs. */
export function Checklist({ job, items, templates, seen, onTyped }: ChecklistProps) {
  const { month } = useAsOf();
  const codecs = useMemo(() => checkCodecs(month), [month]);
  const start = useMemo(() => items.map((it) => rowOf(codecs, it)), [codecs, items]);
  const [rows, setRows] = useState<GridRow[]>(start);
  const { refused, attempt } = useAttempt();
  const [save] = useSaveChecklistMutation();
  const faults: Faults = new Map();
  const list = readRows(codecs, rows, faults).map((it): CheckItem => it.value);
  const changed = stableText(list) !== stableText(items);
  useTyped(changed, onTyped);
  const saveList = async () => {
    if (await attempt(() => save({ job, body: { items: list, seen } }).unwrap(), 'Checklist saved')) onTyped(false);
  };
  return (
    <section aria-label="Checklist">
      <div className="mb-1 flex items-end justify-between">
        <h2>
          Checklist <ToDo items={items} />
        </h2>
        {changed && (
          <button type="button" className="button main" disabled={faults.size > 0} onClick={() => void saveList()}>
            Save checklist
          </button>
        )}
      </div>
      {refused && <Refused message={refused.message} />}
      <EntryGrid
        label="Checklist"
        columns={columnsOf(codecs, COLUMNS)}
        rows={rows}
        onRows={setRows}
        faults={faults}
        height={220}
        blank={Math.max(3, rows.length + 1)}
      />
      <Templates templates={templates} rows={rows} onRows={setRows} list={list} />
    </section>
  );
}

function ToDo({ items }: { items: readonly CheckItem[] }) {
  if (items.length === 0) return null;
  const open = items.filter((it) => it.doneOn === null).length;
  return <span className="note text-[13px]">{open === 0 ? 'all done' : `${open} of ${items.length} to do`}</span>;
}

/** Lists saved for other jobs: to lay one in, and to save this one. */
function Templates({
  templates,
  rows,
  onRows,
  list,
}: {
  templates: readonly CheckTemplate[];
  rows: GridRow[];
  onRows: (rows: GridRow[]) => void;
  list: readonly CheckItem[];
}) {
  const [name, setName] = useState('');
  const { refused, attempt } = useAttempt();
  const [saveTemplate] = useSaveCheckTemplateMutation();
  const insert = ({ items }: CheckTemplate) =>
    onRows([
      ...rows.filter(isFilled),
      ...items.filter((item) => !rows.some((row) => row.item === item)).map((item) => ({ item })),
    ]);
  const saveIt = () =>
    attempt(
      () => saveTemplate({ body: { name, items: list.map((it) => it.item) } }).unwrap(),
      `“${name}” is saved for other jobs`,
    );
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2 text-[13px]">
      {templates.map((it) => (
        <button key={it.name} type="button" className="button" onClick={() => insert(it)}>
          Insert “{it.name}”
        </button>
      ))}
      <input
        className="box w-[170px]"
        placeholder="Save this list as …"
        aria-label="Name to save this list under"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <button type="button" className="button" disabled={name.trim() === '' || list.length === 0} onClick={() => void saveIt()}>
        Save it
      </button>
      {refused && <Refused message={refused.message} />}
    </div>
  );
}
