import { NamedList } from '../../kit/NamedList';
import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import type { LineLook } from './lineLook';

const KEY = 'ledrin.budget-views';

function savedViews(): Record<string, LineLook> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, LineLook>;
  } catch {
    return {};
  }
}

/** Views saved under a name in this browser: taken, forgotten, saved. */
export function SavedViews({ look, onLook }: { look: LineLook; onLook: (look: LineLook) => void }) {
  const [saved, setSaved] = useState(savedViews);
  const store = (next: Record<string, LineLook>) => {
    localStorage.setItem(KEY, JSON.stringify(next));
    setSaved(next);
  };
  const without = (name: string) => Object.fromEntries(Object.entries(saved).filter(([other]) => other !== name));
  return (
    <Pop button="Views …" className="w-[300px] p-4">
      <NamedList
        names={Object.keys(saved)}
        empty="No saved views in this browser."
        onTake={(name) => onLook(saved[name] ?? look)}
        removing="Forget view"
        onRemove={(name) => store(without(name))}
        saving="Save this view as"
        onSave={(name) => store({ ...saved, [name]: look })}
      />
    </Pop>
  );
}
