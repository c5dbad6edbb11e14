import { useMemo, useState } from 'react';
import type { EstimateLine, EstimateView } from '../../../wire/jobs';
import { displayQuantity } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { BudgetViews } from './BudgetViews';
import { filtered, groupsOf, HOURS, MONEY, NO_GROUP, sumOf, type BudgetView, type Group, type Grouping } from './budgetRows';

/** Estimate versus actual of a job: folding groups, unbudgeted cost in sight, every figure with its workings. */
export function EstimateTable({ view, job, height }: { view: EstimateView; job: string; height: string }) {
  const [looked, setLooked] = useState<BudgetView>({ by: 'section', conditions: [] });
  const { by, conditions } = looked;
  const lines = useMemo(() => filtered(view.lines, conditions), [view.lines, conditions]);
  const [shut, setShut] = useState<ReadonlySet<string>>(new Set());
  const groups = useMemo(() => groupsOf(lines, by), [lines, by]);
  const toggle = (name: string) =>
    setShut((before) => {
      const next = new Set(before);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  const { code, show } = useCurrency();
  const whole = lines.length === view.lines.length;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <BudgetViews
          view={looked}
          onView={(next) => {
            setLooked(next);
            if (next.by !== by) setShut(new Set());
          }}
        />
        <button
          type="button"
          className="button bare"
          onClick={() => setShut(shut.size > 0 ? new Set() : new Set(groups.map((it) => it.name)))}
        >
          {shut.size > 0 ? 'Unfold all' : 'Collapse all'}
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
              {[...MONEY, ...HOURS].map(([key, title]) => (
                <th key={key} className="num" style={{ whiteSpace: 'normal' }}>
                  {title}
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
              open={!shut.has(group.name)}
              onToggle={() => toggle(group.name)}
            />
          ))}
          <tfoot>
            <tr>
              <td colSpan={2}>{whole ? `Job ${job}` : `${lines.length} of ${view.lines.length} lines`}</td>
              {MONEY.map(([key, title, figure]) => (
                <td key={key} className="num">
                  {whole ? <Fig value={sumOf(lines, key)} of={{ figure, job }} label={title} /> : show(sumOf(lines, key))}
                </td>
              ))}
              {HOURS.map(([key, title, figure]) => (
                <td key={key} className="num">
                  {whole ? (
                    <Fig value={sumOf(lines, key)} unit="hours" of={{ figure, job }} label={title} />
                  ) : (
                    displayQuantity(sumOf(lines, key))
                  )}
                </td>
              ))}
            </tr>
          </tfoot>
        </table>
      </div>
    </>
  );
}

function GroupRows({
  group,
  by,
  job,
  open,
  onToggle,
}: {
  group: Group;
  by: Grouping;
  job: string;
  open: boolean;
  onToggle: () => void;
}) {
  const { show } = useCurrency();
  const name = (line: EstimateLine) =>
    (by === 'section' ? '' : line.section ? `${line.section} · ` : '') +
    (by === 'code' ? '' : `${line.costCode} ${line.description}`);
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
          {MONEY.map(([key]) => (
            <td key={key} className="num">
              {show(sumOf(group.lines, key))}
            </td>
          ))}
          {HOURS.map(([key]) => (
            <td key={key} className="num">
              {(sumOf(group.lines, key) / 10_000).toLocaleString('en-GB', { maximumFractionDigits: 2 }).replace(/^0$/, '–')}
            </td>
          ))}
        </tr>
      )}
      {(open || by === NO_GROUP) &&
        group.lines.map((line) => (
          <tr key={line.id}>
            <td>
              <span className="pl-5">{name(line) || line.costCode}</span> {!line.budgeted && <Sign name="unbudgeted" />}
            </td>
            <td>{line.costType}</td>
            {MONEY.map(([key, title, figure]) => (
              <td key={key} className="num">
                {key === 'variance' && line.variance < 0 && (
                  <>
                    <Sign name="overrun" bare />{' '}
                  </>
                )}
                <Fig
                  value={line[key]}
                  of={{ figure, job, line: line.id }}
                  label={`${title} of ${line.costCode} ${line.costType}`}
                />
              </td>
            ))}
            {HOURS.map(([key, title, figure]) => (
              <td key={key} className="num">
                <Fig
                  value={line[key]}
                  unit="hours"
                  of={{ figure, job, line: line.id }}
                  label={`${title} of ${line.costCode} ${line.costType}`}
                />
              </td>
            ))}
          </tr>
        ))}
    </tbody>
  );
}
