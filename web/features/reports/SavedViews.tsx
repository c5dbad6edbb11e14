import { NamedList } from '../../kit/NamedList';
import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import type { BudgetView } from './budgetRows';

const KEY = 'ledrin.budget-views';

function savedViews(): Record<string, BudgetView> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, BudgetView>;
  } catch {
    return {};
  }
}

/** Views saved under a name in this browser: taken, forgotten, saved. */
export function SavedViews({ view, onView }: { view: BudgetView; onView: (view: BudgetView) => void }) {
  const [saved, setSaved] = useState(savedViews);
  const store = (next: Record<string, BudgetView>) => {
    localStorage.setItem(KEY, JSON.stringify(next));
    setSaved(next);
  };
  const without = (name: string) => Object.fromEntries(Object.entries(saved).filter(([other]) => other !== name));
  return (
    <Pop button="Views …" className="w-[300px] p-4">
      <NamedList
        names={Object.keys(saved)}
        empty="No saved views in this browser."
        onTake={(name) => onView(saved[name] ?? view)}
        removing="Forget view"
        onRemove={(name) => store(without(name))}
        saving="Save this view as"
        onSave={(name) => store({ ...saved, [name]: view })}
      />
    </Pop>
  );
}
