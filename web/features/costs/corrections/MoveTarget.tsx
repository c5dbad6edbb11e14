import { Choice } from '../../../kit/choice/Choice';
import { Field } from '../../../kit/Field';
import type { useMoveTarget } from './useMoveTarget';

/** Where cost is moved to: job, section, code and type, or a budget line with the SOV line it serves. */
export function MoveTarget({ target }: { target: ReturnType<typeof useMoveTarget> }) {
  const { chosen, options, budget, set } = target;
  const choice = (name: keyof typeof chosen, label: string, width: string) => (
    <Field label={label} className={width}>
      <Choice value={chosen[name]} options={options[name]} onChange={(value) => set({ [name]: value })} />
    </Field>
  );
  return (
    <fieldset className="mt-3 flex flex-wrap items-start gap-3">
      <legend className="sr-only">Move to</legend>
      {choice('job', 'To job', 'w-[240px]')}
      {budget.length > 0 && (
        <Field label="SOV line and budget line" className="w-[260px]">
          <Choice
            value=""
            options={[['', 'Choose a line, or fill in below'], ...budget.map((it, i) => [String(i), it.title] as const)]}
            onChange={(value) => {
              const line = budget[Number(value)];
              if (value !== '' && line) set({ section: line.section, costCode: line.costCode, costType: line.costType });
            }}
          />
        </Field>
      )}
      {choice('section', 'Section', 'w-[150px]')}
      {choice('costCode', 'Cost code', 'w-[200px]')}
      {choice('costType', 'Cost type', 'w-[130px]')}
    </fieldset>
  );
}
