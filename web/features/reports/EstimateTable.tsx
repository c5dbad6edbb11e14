import { useMemo, useState } from 'react';
import { COST_TYPES } from '../../../core/cost/costType';
import type { EstimateLine, EstimateView } from '../../../wire/jobs';
import { useCurrency } from '../../app/company';
import { Fig } from '../../app/Fig';
import { Legend, Sign } from '../../ui/Signs';

const MONEY = [
  ['original', 'Original', 'lineOriginal'],
  ['changes', 'Changes', 'lineChanges'],
  ['transfers', 'Transfers', 'lineTransfers'],
  ['revised', 'Revised', 'lineRevised'],
  ['actual', 'Actual', 'lineActual'],
  ['committed', 'Committed', 'lineCommitted'],
  ['estimate', 'Estimate at completion', 'lineEstimate'],
  ['variance', 'Variance', 'lineVariance'],
] as const;
const HOURS = [
  ['hoursBudgeted', 'Hours budgeted', 'lineHoursBudgeted'],
  ['hoursActual', 'Hours to date', 'lineHoursActual'],
] as const;
type SumKey = (typeof MONEY)[number][0] | (typeof HOURS)[number][0];

const GROUPINGS = { section: 'Section', code: 'Cost code', type: 'Cost type' } as const;
type Grouping = keyof typeof GROUPINGS;

const groupOf = (line: EstimateLine, by: Grouping) =>
  by === 'section' ? line.section || 'No section' : by === 'code' ? `${line.costCode} ${line.description}` : line.costType;

interface Group {
  name: string;
  lines: EstimateLine[];
}

function groupsOf(lines: readonly EstimateLine[], by: Grouping): Group[] {
  const groups = new Map<string, EstimateLine[]>();
  for (const line of lines) {
    const name = groupOf(line, by);
    groups.set(name, [...(groups.get(name) ?? []), line]);
  }
  const list = [...groups].map(([name, own]) => ({ name, lines: own }));
  return by === 'type'
    ? list.sort((a, b) => COST_TYPES.indexOf(a.name as 'labour') - COST_TYPES.indexOf(b.name as 'labour'))
    : list.sort((a, b) => (a.name < b.name ? -1 : 1));
}

const sumOf = (lines: readonly EstimateLine[], key: SumKey) => lines.reduce((total, line) => total + line[key], 0);

/** Estimate versus actual of a job: folding groups, unbudgeted cost in sight, every figure with its workings. */
export function EstimateTable({ view, job, height }: { view: EstimateView; job: string; height: string }) {
  const [by, setBy] = useState<Grouping>('section');
  const [shut, setShut] = useState<ReadonlySet<string>>(new Set());
  const groups = useMemo(() => groupsOf(view.lines, by), [view.lines, by]);
  const toggle = (name: string) =>
    setShut((before) => {
      const next = new Set(before);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  const { code } = useCurrency();
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <span className="note">Grouped by</span>
        <div role="radiogroup" aria-label="Grouped by" className="inline-flex">
          {(Object.keys(GROUPINGS) as Grouping[]).map((key) => (
            <button
              key={key}
              type="button"
              role="radio"
              aria-checked={by === key}
              className="press"
              style={by === key ? { background: 'var(--accent-soft)', borderColor: 'var(--accent)' } : {}}
              onClick={() => {
                setBy(key);
                setShut(new Set());
              }}
            >
              {GROUPINGS[key]}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="press bare"
          onClick={() => setShut(shut.size > 0 ? new Set() : new Set(groups.map((it) => it.name)))}
        >
          {shut.size > 0 ? 'Unfold all' : 'Fold all'}
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
              <td colSpan={2}>Job {job}</td>
              {MONEY.map(([key, title, figure]) => (
                <td key={key} className="num">
                  <Fig value={sumOf(view.lines, key)} of={{ figure, job }} label={title} />
                </td>
              ))}
              {HOURS.map(([key, title, figure]) => (
                <td key={key} className="num">
                  <Fig value={sumOf(view.lines, key)} unit="hours" of={{ figure, job }} label={title} />
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
      {open &&
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
