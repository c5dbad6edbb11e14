import { present } from '../../../core/errors/known';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { displayExact, displayQuantity } from '../../../core/money/display';
import { parseQuantity } from '../../../core/money/rate';
import { useCurrency } from '../../ground/company';
import { Field } from '../../kit/Field';
import {
  HOURS,
  isWording,
  MONEY,
  NO_GROUP,
  WORDS,
  type BudgetView,
  type Condition,
  type Grouping,
  type SumKey,
} from './budgetRows';
import { withoutThousands } from '../../kit/typed/withoutThousands';

const KEPT = 'ledrin.budget-views';
const FIGURES = [...MONEY, ...HOURS] as readonly (readonly [SumKey, string, string])[];
const isHours = (column: Condition['column']) => column === 'hoursBudgeted' || column === 'hoursActual';
const titleOf = (column: Condition['column']) =>
  isWording(column) ? WORDS[column] : present(FIGURES.find(([key]) => key === column))[1];

function keptViews(): Record<string, BudgetView> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, BudgetView>;
  } catch {
    return {};
  }
}

/** How the budget is looked at: grouped by a column, filtered by conditions, saved under a name in this browser. */
export function BudgetViews({ view, onView }: { view: BudgetView; onView: (view: BudgetView) => void }) {
  const { digits } = useCurrency();
  const [kept, setKept] = useState(keptViews);
  const [name, setName] = useState('');
  const store = (next: Record<string, BudgetView>) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    setKept(next);
  };
  const said = ({ column, is, value }: Condition) =>
    `${titleOf(column)} ${is === 'holds' ? `holds “${value}”` : `${is.replace('-', ' ')} ${isHours(column) ? displayQuantity(Number(value)) : displayExact(Number(value), digits)}`}`;
  return (
    <>
      <Field label="Grouped by">
        <select
          value={view.by}
          style={{ width: 150 }}
          onChange={(event) => onView({ ...view, by: event.target.value as Grouping })}
        >
          {Object.entries(WORDS).map(([key, title]) => (
            <option key={key} value={key}>
              {title}
            </option>
          ))}
          <option value={NO_GROUP}>not grouped</option>
        </select>
      </Field>
      <AddCondition onAdd={(condition) => onView({ ...view, conditions: [...view.conditions, condition] })} />
      {view.conditions.map((condition, i) => (
        <button
          key={i}
          type="button"
          className="button"
          style={{ background: 'var(--accent-soft)', borderColor: 'var(--accent)' }}
          title="Remove filter"
          onClick={() => onView({ ...view, conditions: view.conditions.filter((_, k) => k !== i) })}
        >
          {said(condition)} <span aria-hidden="true">×</span>
        </button>
      ))}
      <Popover.Root>
        <Popover.Trigger className="button">Views …</Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            className="z-50 w-[300px] border p-4 shadow-xl [background:var(--sheet)] [border-color:var(--rule)]"
          >
            {Object.keys(kept).length === 0 && <p className="note mt-0">No saved views in this browser.</p>}
            <ul className="m-0 mb-3 list-none p-0">
              {Object.entries(kept).map(([title, one]) => (
                <li key={title} className="flex items-center">
                  <button type="button" className="button bare grow justify-start" onClick={() => onView(one)}>
                    {title}
                  </button>
                  <button
                    type="button"
                    className="button bare"
                    aria-label={`Forget view ${title}`}
                    onClick={() => store(Object.fromEntries(Object.entries(kept).filter(([other]) => other !== title)))}
                  >
                    ×
                  </button>
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
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
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
    <Popover.Root>
      <Popover.Trigger className="button">Filter …</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          className="z-50 w-[320px] border p-4 shadow-xl [background:var(--sheet)] [border-color:var(--rule)]"
        >
          <form className="grid grid-cols-2 gap-3" onSubmit={add}>
            <Field label="Column">
              <select value={column} onChange={(event) => setColumn(event.target.value as Condition['column'])}>
                {Object.entries(WORDS).map(([key, title]) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
                {FIGURES.map(([key, title]) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
              </select>
            </Field>
            {isWording(column) ? (
              <Field label="holds" fault={fault}>
                <input value={typed} onChange={(event) => setTyped(event.target.value)} />
              </Field>
            ) : (
              <>
                <Field label="is">
                  <select value={is} onChange={(event) => setIs(event.target.value as 'at-least')}>
                    <option value="at-least">at least</option>
                    <option value="at-most">at most</option>
                  </select>
                </Field>
                <Field label="Figure" fault={fault}>
                  <input value={typed} style={{ textAlign: 'right' }} onChange={(event) => setTyped(event.target.value)} />
                </Field>
              </>
            )}
            <button className="button main col-span-2 justify-self-start">Add the condition</button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
