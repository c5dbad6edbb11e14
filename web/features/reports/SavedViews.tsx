import { RemoveButton } from '../../kit/RemoveButton';
import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import { Field } from '../../kit/Field';
import type { BudgetView } from './budgetRows';

const KEPT = 'ledrin.budget-views';

function keptViews(): Record<string, BudgetView> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, BudgetView>;
  } catch {
    return {};
  }
}

/** Views saved under a name in this browser: taken, forgotten, saved. */
export function SavedViews({ view, onView }: { view: BudgetView; onView: (view: BudgetView) => void }) {
  const [kept, setKept] = useState(keptViews);
  const [name, setName] = useState('');
  const store = (next: Record<string, BudgetView>) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    setKept(next);
  };
  return (
    <Pop button="Views …" className="w-[300px] p-4">
      {Object.keys(kept).length === 0 && <p className="note mt-0">No saved views in this browser.</p>}
      <ul className="m-0 mb-3 list-none p-0">
        {Object.entries(kept).map(([title, one]) => (
          <li key={title} className="flex items-center">
            <button type="button" className="button bare grow justify-start" onClick={() => onView(one)}>
              {title}
            </button>
            <RemoveButton
              label={`Forget view ${title}`}
              onRemove={() => store(Object.fromEntries(Object.entries(kept).filter(([other]) => other !== title)))}
            />
          </li>
        ))}
      </ul>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) store({ ...kept, [name.trim()]: view });
          setName('');
        }}
      >
        <Field label="Save this view as" className="grow">
          <input value={name} onChange={(event) => setName(event.target.value)} />
        </Field>
        <button className="button" disabled={name.trim() === ''}>
          Save
        </button>
      </form>
    </Pop>
  );
}
