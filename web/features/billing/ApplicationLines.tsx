import { useMemo } from 'react';
import { displayPercent } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { ApplicationView } from '../../../wire/billing';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Legend } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { AgainstCost, EarnedNote } from './AgainstCost';

type Line = ApplicationView['lines'][number];

/** The lines of an application that is no longer a draft. */
export function ApplicationLines({ view }: { view: ApplicationView }) {
  return (
    <>
      <Table
        label="Lines of the application"
        unsearched
        className="even text-[13px]"
        rows={view.lines}
        rowKey={(line) => line.line}
        columns={useLineColumns(view)}
        foot={useFoot(view)}
      />
      <p className="note text-[12.5px]">
        Earned by cost: scheduled value times cost over estimate of the budget lines that serve the line.{' '}
        <Legend names={['over', 'under']} />
      </p>
      <EarnedNote view={view} />
    </>
  );
}

const applied = (line: Line) => line.appliedWork + line.appliedMaterials;
/** True where the client certified other figures than were applied for. */
const isCut = (view: ApplicationView) =>
  view.lines.some((line) => line.appliedWork !== line.work || line.appliedMaterials !== line.materials);

function useLineColumns(view: ApplicationView): TableColumn<Line>[] {
  const kinds = useColumnKinds();
  const { show } = useCurrency();
  return useMemo(() => {
    const cut = isCut(view);
    const retention = (line: Line) => ({
      figure: 'sovLineRetention',
      job: view.job,
      application: view.number,
      sovLine: line.line,
    });
    return [
      kinds.text<Line>('line', 'Line', (line) => `${line.line} ${line.description}`, {
        cell: (line) => (
          <span className="two-lines" title={line.description}>
            <b>{line.line}</b> {line.description}
          </span>
        ),
      }),
      kinds.amount<Line>('scheduled', 'Scheduled value', (line) => line.scheduled, { width: 98 }),
      kinds.amount<Line>('earned', 'Earned by cost', (line) => line.earnedByCost ?? 0, {
        width: 108,
        cell: (line) => <AgainstCost of={view} sovLine={line.line} billed={line.work} earned={line.earnedByCost} />,
      }),
      kinds.amount<Line>('previous', 'Previous', (line) => line.previousWork, { width: 98 }),
      kinds.amount<Line>('period', 'This period', (line) => line.work - line.previousWork, { width: 88 }),
      kinds.amount<Line>('work', 'Work to date', (line) => line.work, { width: 98 }),
      kinds.amount<Line>('materials', 'On site', (line) => line.materials, { width: 82 }),
      kinds.percent<Line>('done', '%', (line) => ratio(line.toDate, line.scheduled), { width: 52 }),
      kinds.amount<Line>('retention', 'Retention', (line) => line.retention, {
        width: 84,
        of: retention,
        figLabel: (line) => `Retention on line ${line.line}`,
      }),
      cut
        ? kinds.amount<Line>('applied', 'Applied for', applied, {
            width: 92,
            cell: (line) => (applied(line) === line.toDate ? '' : show(applied(line))),
          })
        : kinds.amount<Line>('balance', 'Balance', (line) => line.scheduled - line.toDate, { width: 92 }),
    ];
  }, [view, kinds, show]);
}

function useFoot(view: ApplicationView) {
  const { show, code } = useCurrency();
  const { lines, summary } = view;
  const sum = (value: (line: Line) => number) => show(lines.reduce((total, line) => total + value(line), 0));
  const fig = (figure: 'contractSum' | 'work' | 'materials' | 'retention', label: string) => (
    <Fig value={summary[figure]} of={{ figure, job: view.job, application: view.number }} label={label} />
  );
  const cells = {
    scheduled: fig('contractSum', 'Contract sum'),
    earned: sum((line) => line.earnedByCost ?? 0),
    previous: sum((line) => line.previousWork),
    period: sum((line) => line.work - line.previousWork),
    work: fig('work', 'Work done to date'),
    materials: fig('materials', 'Materials on site'),
    done: displayPercent(ratio(summary.gross, summary.contractSum)),
    retention: fig('retention', 'Retention to date'),
    applied: sum(applied),
    balance: show(summary.contractSum - summary.gross),
  };
  return { label: `Total, ${code}`, cells };
}
