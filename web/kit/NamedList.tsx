import { useState, type FormEvent } from 'react';
import { Field } from './Field';
import { RemoveButton } from './RemoveButton';

interface NamedListProps {
  names: readonly string[];
  /** What is said where there are none. */
  empty: string;
  onTake: (name: string) => void;
  /** What taking one away is called, before its name. */
  removing: string;
  onRemove: (name: string) => void;
  /** What saving under a new name is called. */
  saving: string;
  onSave: (name: string) => void;
  fault?: string;
}

/** Things saved under a name: taken, taken away, and one more saved. */
export function NamedList({ names, empty, onTake, removing, onRemove, saving, onSave, fault }: NamedListProps) {
  const [name, setName] = useState('');
  const save = (event: FormEvent) => {
    event.preventDefault();
    onSave(name.trim());
  };
  return (
    <>
      {names.length === 0 && <p className="note mt-0">{empty}</p>}
      <ul className="m-0 mb-3 list-none p-0">
        {names.map((it) => (
          <li key={it} className="flex items-center">
            <button type="button" className="button bare grow justify-start" onClick={() => onTake(it)}>
              {it}
            </button>
            <RemoveButton label={`${removing} ${it}`} onRemove={() => onRemove(it)} />
          </li>
        ))}
      </ul>
      <form className="flex items-end gap-2" onSubmit={save}>
        <Field label={saving} fault={fault} className="grow">
          <input value={name} onChange={(event) => setName(event.target.value)} />
        </Field>
        <button className="button" disabled={name.trim() === ''}>
          Save
        </button>
      </form>
    </>
  );
}
