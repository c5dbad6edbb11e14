import { useMemo, useState } from 'react';
import type { EstimateLine, EstimateView } from '../../../wire/jobs';
import { displayQuantity } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Legend, Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import { toggled } from '../../kit/table/toggled';
import type { TableColumn } from '../../kit/table/tableTypes';
import { BudgetViews } from './BudgetViews';
import { FIGURES, filtered, grouped, NO_GROUP, sumOf, wordsOf, type BudgetView, type Grouping } from './budgetRows';

/** Estimate versus actual of a job: folding groups, unbudgeted cost in sight, every figure with its workings. */
export function EstimateTable({ view, job, inWindow }: { view: EstimateView; job: string; inWindow: boolean }) {
  const [looked, setLooked] = useState<BudgetView>({ by: 'section', conditions: [] });
  const { by, conditions } = looked;
  const lines = useMemo(() => grouped(filtered(view.lines, conditions), by), [view.lines, conditions, by]);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const written = useWritten();
  const columns = useMemo(() => columnsOf(by, job, written), [by, job, written]);
  const { code } = useCurrency();
  const whole = lines.length === view.lines.length;
  const of = (line: EstimateLine) => (by === NO_GROUP ? '' : wordsOf(line, by));
  const cells = (own: readonly EstimateLine[]) =>
    Object.fromEntries(FIGURES.map(({ key, unit }) => [key, written[unit](sumOf(own, key))]));
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <BudgetViews
          view={looked}
          onView={(next) => {
            setLooked(next);
            if (next.by !== by) setFolded(new Set());
          }}
        />
        <button type="button" className="button bare" onClick={() => setFolded(new Set(folded.size > 0 ? [] : lines.map(of)))}>
          {folded.size > 0 ? 'Unfold all' : 'Collapse all'}
        </button>
        <span className="ml-auto inline-flex items-center gap-4">
          <Legend names={['unbudgeted', 'overrun', 'loss']} />
          <span className="note text-[12.5px]">Amounts in {code}</span>
        </span>
      </div>
      <Table
        label="Estimate versus actual"
        columns={columns}
        rows={lines}
        rowKey={(it) => String(it.id)}
        unsearched
        height={inWindow ? 'window' : undefined}
        groups={by === NO_GROUP ? undefined : { of, sums: cells, folded, onFold: (name) => setFolded(toggled(folded, name)) }}
        foot={{
          label: whole ? `Job ${job}` : `${lines.length} of ${view.lines.length} lines`,
          cells: whole ? workedTotals(lines, job) : cells(lines),
        }}
      />
    </>
  );
}

type Written = Record<'money' | 'hours', (value: number) => string>;

/** How a sum is written that has no workings of its own. */
function useWritten(): Written {
  const { show } = useCurrency();
  return useMemo(() => ({ money: show, hours: displayQuantity }), [show]);
}

function workedTotals(lines: readonly EstimateLine[], job: string) {
  return Object.fromEntries(
    FIGURES.map(({ key, head, figure, unit }) => [
      key,
      <Fig key={key} value={sumOf(lines, key)} unit={unit} of={{ figure, job }} label={head} />,
    ]),
  );
}

/** What a line is called in its group, which says part of it already. */
function nameOf(line: EstimateLine, by: Grouping): string {
  const section = by === 'section' || line.section === '' ? '' : `${line.section} · `;
  return section + (by === 'code' ? '' : `${line.costCode} ${line.description}`) || line.costCode;
}

function columnsOf(by: Grouping, job: string, written: Written): TableColumn<EstimateLine>[] {
  return [
    {
      key: 'line',
      title: 'Line',
      value: (it) => nameOf(it, by),
      cell: (it) => (
        <>
          <span className="pl-5">{nameOf(it, by)}</span> {!it.budgeted && <Sign name="unbudgeted" />}
        </>
      ),
    },
    { key: 'type', title: 'Type', value: (it) => it.costType, cell: (it) => it.costType },
    ...FIGURES.map(({ key, head, figure, unit }): TableColumn<EstimateLine> => ({
      key,
      title: head,
      wraps: true,
      value: (it) => it[key],
      number: written[unit],
      cell: (it) => (
        <>
          {key === 'variance' && it.variance < 0 && (
            <>
              <Sign name="overrun" bare />{' '}
            </>
          )}
          <Fig value={it[key]} unit={unit} of={{ figure, job, line: it.id }} label={`${head} of ${it.costCode} ${it.costType}`} />
        </>
      ),
    })),
  ];
}
