import { useMemo, useState } from 'react';
import type { EstimateLine, EstimateView } from '../../../wire/jobs';
import { displayQuantity } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { BudgetViews } from './BudgetViews';
import { FIGURES, filtered, groupsOf, NO_GROUP, sumOf, type BudgetView, type Group, type Grouping } from './budgetRows';

/** Estimate versus actual of a job: folding groups, unbudgeted cost in sight, every figure with its workings. */
export function EstimateTable({ view, job, height }: { view: EstimateView; job: string; height: string }) {
  const [looked, setLooked] = useState<BudgetView>({ by: 'section', conditions: [] });
  const { by, conditions } = looked;
  const lines = useMemo(() => filtered(view.lines, conditions), [view.lines, conditions]);
  const groups = useMemo(() => groupsOf(lines, by), [lines, by]);
  const fold = useFolding();
  const { code } = useCurrency();
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <BudgetViews
          view={looked}
          onView={(next) => {
            setLooked(next);
            if (next.by !== by) fold.set([]);
          }}
        />
        <button
          type="button"
          className="button bare"
          onClick={() => fold.set(fold.shut.size > 0 ? [] : groups.map((it) => it.name))}
        >
          {fold.shut.size > 0 ? 'Unfold all' : 'Collapse all'}
        </button>
        <span className="ml-auto inline-flex items-center gap-4">
          <Legend names={['unbudgeted', 'overrun', 'loss']} />
          <span className="note text-[12.5px]">Amounts in {code}</span>
        </span>
      </div>
      <div className="scroll" style={{ maxHeight: height }} tabIndex={0} role="region" aria-label="Estimate versus actual">
        <table className="ledger">
          <thead>
            <tr>
              <th>Line</th>
              <th>Type</th>
              {FIGURES.map(({ key, head }) => (
                <th key={key} className="num wraps">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          {groups.map((group) => (
            <GroupRows
              key={group.name}
              group={group}
              by={by}
              job={job}
              open={!fold.shut.has(group.name)}
              onToggle={() => fold.toggle(group.name)}
            />
          ))}
          <TotalRow lines={lines} all={view.lines.length} job={job} />
        </table>
      </div>
    </>
  );
}

/** Which groups are folded. */
function useFolding() {
  const [shut, setShut] = useState<ReadonlySet<string>>(new Set());
  const toggle = (name: string) =>
    setShut((before) => {
      const next = new Set(before);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  return { shut, toggle, set: (names: readonly string[]) => setShut(new Set(names)) };
}

/** Writes a sum that has no workings of its own. */
function useWritten() {
  const { show } = useCurrency();
  return (unit: 'money' | 'hours', value: number) => (unit === 'money' ? show(value) : displayQuantity(value));
}

function TotalRow({ lines, all, job }: { lines: readonly EstimateLine[]; all: number; job: string }) {
  const written = useWritten();
  const whole = lines.length === all;
  return (
    <tfoot>
      <tr>
        <td colSpan={2}>{whole ? `Job ${job}` : `${lines.length} of ${all} lines`}</td>
        {FIGURES.map(({ key, head, figure, unit }) => (
          <td key={key} className="num">
            {whole ? (
              <Fig value={sumOf(lines, key)} unit={unit} of={{ figure, job }} label={head} />
            ) : (
              written(unit, sumOf(lines, key))
            )}
          </td>
        ))}
      </tr>
    </tfoot>
  );
}

interface GroupProps {
  group: Group;
  by: Grouping;
  job: string;
  open: boolean;
  onToggle: () => void;
}

function GroupRows({ group, by, job, open, onToggle }: GroupProps) {
  const written = useWritten();
  return (
    <tbody>
      {by !== NO_GROUP && (
        <tr className="fold">
          <td colSpan={2}>
            <button type="button" className="fig" aria-expanded={open} onClick={onToggle}>
              <span aria-hidden="true" className="inline-block w-4">
                {open ? '–' : '+'}
              </span>
              {group.name} <span className="note font-normal">{group.lines.length}</span>
            </button>
          </td>
          {FIGURES.map(({ key, unit }) => (
            <td key={key} className="num">
              {written(unit, sumOf(group.lines, key))}
            </td>
          ))}
        </tr>
      )}
      {(open || by === NO_GROUP) && group.lines.map((line) => <LineRow key={line.id} line={line} by={by} job={job} />)}
    </tbody>
  );
}

function LineRow({ line, by, job }: { line: EstimateLine; by: Grouping; job: string }) {
  const name =
    (by === 'section' ? '' : line.section ? `${line.section} · ` : '') +
    (by === 'code' ? '' : `${line.costCode} ${line.description}`);
  return (
    <tr>
      <td>
        <span className="pl-5">{name || line.costCode}</span> {!line.budgeted && <Sign name="unbudgeted" />}
      </td>
      <td>{line.costType}</td>
      {FIGURES.map(({ key, head, figure, unit }) => (
        <td key={key} className="num">
          {key === 'variance' && line.variance < 0 && (
            <>
              <Sign name="overrun" bare />{' '}
            </>
          )}
          <Fig
            value={line[key]}
            unit={unit}
            of={{ figure, job, line: line.id }}
            label={`${head} of ${line.costCode} ${line.costType}`}
          />
        </td>
      ))}
    </tr>
  );
}
