import { isFilled } from '../../kit/grid/filledRow';
import { stableText } from '../../../core/lists/stableText';
import { useSavePeopleMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import type { Person } from '../../../wire/jobFile';
import { faultOf } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Refused } from '../../kit/States';
import { useTyped, type OnTyped } from '../../kit/StableForm';

const COLUMNS: readonly GridColumn[] = [
  {
    key: 'side',
    title: 'Whose',
    width: 70,
    offers: () => [
      { value: 'client', label: 'of the client' },
      { value: 'team', label: 'ours: may post to the job' },
    ],
  },
  { key: 'name', title: 'Name', width: 130 },
  { key: 'role', title: 'Role', width: 120 },
  { key: 'email', title: 'E-mail', width: 'auto' },
  { key: 'phone', title: 'Phone', width: 100 },
];

/** The client's contacts and our own team. */
export function People({
  job,
  people,
  seen,
  onTyped,
}: {
  job: string;
  people: readonly Person[];
  seen: string;
  onTyped: OnTyped;
}) {
  const start = useMemo(() => people.map((it): GridRow => ({ ...it })), [people]);
  const [rows, setRows] = useState<GridRow[]>(start);
  const [refused, setRefused] = useState<string | null>(null);
  const [save] = useSavePeopleMutation();
  const faults = new Map<string, string>();
  const list = rows.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    const text = (key: string) => (row[key] ?? '').trim();
    if (text('side') !== 'client' && text('side') !== 'team') faults.set(`${i}.side`, 'Expected client or team');
    if (text('name') === '') faults.set(`${i}.name`, 'Expected a name');
    return [
      {
        side: text('side') as Person['side'],
        name: text('name'),
        role: text('role'),
        email: text('email'),
        phone: text('phone'),
      },
    ];
  });
  const changed = stableText(list) !== stableText(people);
  useTyped(changed, onTyped);
  const saveChanges = async () => {
    try {
      await save({ job, body: { people: list, seen } }).unwrap();
      setRefused(null);
      onTyped(false);
      toast('People saved');
    } catch (error) {
      setRefused(faultOf(error).message);
    }
  };
  return (
    <section aria-label="People">
      <div className="mb-1 flex items-end justify-between">
        <h2>People</h2>
        {changed && (
          <button type="button" className="button main" disabled={faults.size > 0} onClick={() => void saveChanges()}>
            Save {list.length} {list.length === 1 ? 'person' : 'people'}
          </button>
        )}
      </div>
      {refused && <Refused message={refused} />}
      <EntryGrid
        label="People"
        columns={COLUMNS}
        rows={rows}
        onRows={setRows}
        faults={faults}
        height={190}
        blank={Math.max(3, rows.length + 1)}
      />
    </section>
  );
}
