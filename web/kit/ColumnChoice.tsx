import { Pop } from './Pop';
import { useState } from 'react';
import { useNarrowWindow } from './useNarrowWindow';

interface Usual {
  /** Hidden in a window narrower than this, in pixels, until somebody chooses, so that the rest is seen without scrolling. */
  below: number;
  columns: readonly string[];
  /** Hidden at any width until somebody chooses. */
  always?: readonly string[];
}

/** Which columns of a table this browser hides, stored under `name`; `usual` holds until somebody chooses. */
export function useHiddenColumns(name: string, usual: Usual): [ReadonlySet<string>, (hidden: string[]) => void] {
  const [hidden, setHidden] = useState(() => readHidden(name));
  const isNarrow = useNarrowWindow(usual.below);
  const hide = (keys: string[]) => {
    localStorage.setItem(name, JSON.stringify(keys));
    setHidden(keys);
  };
  return [new Set(hidden ?? [...(usual.always ?? []), ...(isNarrow ? usual.columns : [])]), hide];
}

function readHidden(name: string): string[] | null {
  try {
    const keys: unknown = JSON.parse(localStorage.getItem(name) ?? 'null');
    return Array.isArray(keys) ? keys.filter((it) => typeof it === 'string') : null;
  } catch {
    return null;
  }
}

/** Chooses the columns of a table. The button says how many are hidden, so that none is missed. */
export function ColumnChoice({
  columns,
  hidden,
  onHide,
}: {
  columns: readonly { key: string; title: string }[];
  hidden: ReadonlySet<string>;
  onHide: (hidden: string[]) => void;
}) {
  const count = columns.filter(({ key }) => hidden.has(key)).length;
  return (
    <Pop button={<>Columns{count > 0 ? ` (${count} hidden)` : ''}</>} align="end" className="w-[230px] p-3">
      <fieldset className="m-0 border-0 p-0">
        <legend className="note mb-1 p-0">Columns shown</legend>
        {columns.map(({ key, title }) => (
          <label key={key} className="flex items-center gap-2 py-0.5">
            <input
              type="checkbox"
              checked={!hidden.has(key)}
              onChange={({ target }) => onHide(target.checked ? [...hidden].filter((it) => it !== key) : [...hidden, key])}
            />
            {title}
          </label>
        ))}
      </fieldset>
      <button type="button" className="button mt-2" disabled={count === 0} onClick={() => onHide([])}>
        Show all
      </button>
    </Pop>
  );
}
