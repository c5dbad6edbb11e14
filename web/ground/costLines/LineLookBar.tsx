import { X } from 'lucide-react';
import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import { known } from '../../../core/errors/known';
import { displayExact, displayQuantity } from '../../../core/money/display';
import { parseQuantity } from '../../../core/money/rate';
import { useCurrency } from '../company';
import { Field } from '../../kit/Field';
import { withoutThousands } from '../../kit/typed/withoutThousands';
import { FIGURES, isWording, NO_GROUP, WORDS, type LineLook, type Condition } from './lineLook';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { SavedViews } from './SavedViews';

const FIGURE_OF = new Map<string, (typeof FIGURES)[number]>(FIGURES.map((it) => [it.key, it]));
const isHours = (column: Condition['column']) => FIGURE_OF.get(column)?.unit === 'hours';
const titleOf = (column: Condition['column']) => (isWording(column) ? WORDS[column] : known(FIGURE_OF, column).head);

const WORDINGS = Object.entries(WORDS) as [keyof typeof WORDS, string][];
const COLUMNS: readonly Option<Condition['column']>[] = [...WORDINGS, ...FIGURES.map(({ key, head }) => [key, head] as const)];

/** A condition in words. */
function describe({ column, is, value }: Condition, digits: number): string {
  if (is === 'holds') return `${titleOf(column)} holds “${value}”`;
  const figure = isHours(column) ? displayQuantity(Number(value)) : displayExact(Number(value), digits);
  return `${titleOf(column)} ${is.replace('-', ' ')} ${figure}`;
}

/** How the cost lines are looked at: grouped by a column, filtered by conditions, saved under a name in this browser. */
export function LineLookBar({ look, onLook }: { look: LineLook; onLook: (look: LineLook) => void }) {
  const { digits } = useCurrency();
  return (
    <>
      <Field label="Grouped by" className="w-[150px]">
        <Choice value={look.by} options={[...WORDINGS, [NO_GROUP, 'not grouped']]} onChange={(by) => onLook({ ...look, by })} />
      </Field>
      <AddCondition onAdd={(condition) => onLook({ ...look, conditions: [...look.conditions, condition] })} />
      {look.conditions.map((condition, i) => (
        <button
          key={i}
          type="button"
          className="button set"
          title="Remove filter"
          onClick={() => onLook({ ...look, conditions: look.conditions.filter((_, k) => k !== i) })}
        >
          {describe(condition, digits)} <X size={13} aria-hidden="true" />
        </button>
      ))}
      <SavedViews look={look} onLook={onLook} />
    </>
  );
}

function AddCondition({ onAdd }: { onAdd: (condition: Condition) => void }) {
  const { read } = useCurrency();
  const [column, setColumn] = useState<Condition['column']>('code');
  const [is, setIs] = useState<'at-least' | 'at-most'>('at-least');
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string>();
  const add = (event: React.FormEvent) => {
    event.preventDefault();
    if (isWording(column)) {
      if (typed.trim() === '') return setFault('Enter some text');
      onAdd({ column, is: 'holds', value: typed.trim() });
    } else {
      const hours = parseQuantity(withoutThousands(typed));
      const value = isHours(column) ? (hours.ok ? hours.value : null) : read(typed);
      if (value === null) return setFault('Expected a figure such as 1,000.00');
      onAdd({ column, is, value });
    }
    setFault(undefined);
    setTyped('');
  };
  return (
    <Pop button="Filter …">
      <form className="grid grid-cols-2 gap-3" onSubmit={add}>
        <Field label="Column">
          <Choice value={column} options={COLUMNS} onChange={setColumn} />
        </Field>
        {isWording(column) ? (
          <Field label="holds" fault={fault}>
            <input value={typed} onChange={(event) => setTyped(event.target.value)} />
          </Field>
        ) : (
          <>
            <Field label="is">
              <Choice
                value={is}
                options={[
                  ['at-least', 'at least'],
                  ['at-most', 'at most'],
                ]}
                onChange={setIs}
              />
            </Field>
            <Field label="Figure" fault={fault}>
              <input value={typed} className="num" onChange={(event) => setTyped(event.target.value)} />
            </Field>
          </>
        )}
        <button className="button main col-span-2 justify-self-start">Add the condition</button>
      </form>
    </Pop>
  );
}
