import { useMemo } from 'react';
import { Link, useOutletContext } from 'react-router';
import { ratio } from '../../../core/money/rate';
import { displayPercent } from '../../../core/money/display';
import { useWithMonth } from '../../ground/asOf';
import { May } from '../../ground/person';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import { CorrectSetupLink } from '../../ground/CorrectSetupLink';
import type { JobOutlet } from './JobPage';

type Line = JobOutlet['job']['sov'][number];

/** The schedule of values as of the month. */
export function JobContract() {
  const { job } = useOutletContext<JobOutlet>();
  const columns = useColumns(job.number);
  const foot = useFoot(job);
  const withMonth = useWithMonth();
  if (job.sov.length === 0)
    return (
      <Empty title="No schedule of values">
        <CorrectSetupLink job={job.number} otherwise="A job gets its schedule when it is set up, or by importing a book." />
      </Empty>
    );
  return (
    <>
      <div className="mb-1 flex items-end justify-between">
        <h2>Schedule of values</h2>
        <span className="flex items-baseline gap-4">
          <May do="report:contract-status">
            <Link to={withMonth(`/jobs/${encodeURIComponent(job.number)}/status`)}>Contract status by month</Link>
          </May>
          <CorrectSetupLink job={job.number} />
        </span>
      </div>
      <Table label="Schedule of values" columns={columns} rows={job.sov} rowKey={(line) => line.line} foot={foot} />
    </>
  );
}

function useColumns(job: string) {
  const kinds = useColumnKinds();
  return useMemo(() => {
    const of = (figure: string) => (line: Line) => ({ figure, job, sovLine: line.line });
    return [
      kinds.text<Line>('line', 'Line', (line) => line.line),
      kinds.text<Line>('section', 'Section', (line) => line.section),
      kinds.text<Line>('description', 'Description', (line) => line.description),
      kinds.amount<Line>('signed', 'As signed', (line) => line.scheduledValue, {
        of: of('sovLineSigned'),
        figLabel: (line) => `As signed, line ${line.line}`,
      }),
      kinds.amount<Line>('changes', 'Changes', (line) => line.changes),
      kinds.amount<Line>('scheduled', 'Scheduled value', (line) => line.scheduledToDate, {
        of: of('sovLineScheduled'),
        figLabel: (line) => `Scheduled value of line ${line.line}`,
      }),
      kinds.amount<Line>('billed', 'Billed to date', (line) => line.billed, {
        of: of('sovLineBilled'),
        figLabel: (line) => `Billed on line ${line.line}`,
      }),
      kinds.percent<Line>('done', 'Billed %', (line) => ratio(line.billed, line.scheduledToDate)),
      kinds.amount<Line>('left', 'Left to bill', (line) => line.scheduledToDate - line.billed),
    ];
  }, [kinds, job]);
}

function useFoot(job: JobOutlet['job']) {
  const { show, code } = useCurrency();
  const sum = (value: (line: Line) => number) => show(job.sov.reduce((total, line) => total + value(line), 0));
  return {
    label: `Contract sum, ${code}`,
    cells: {
      signed: sum((line) => line.scheduledValue),
      changes: sum((line) => line.changes),
      scheduled: <Fig value={job.contractSum} of={{ figure: 'contractSum', job: job.number }} label="Contract sum" />,
      billed: <Fig value={job.billed} of={{ figure: 'billed', job: job.number }} label="Billed to date" />,
      done: displayPercent(ratio(job.billed, job.contractSum)),
      left: show(job.contractSum - job.billed),
    },
  };
}
