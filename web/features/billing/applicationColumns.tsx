import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationRow } from '../../../wire/billing';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { Sign } from '../../kit/Signs';
import type { TableColumn } from '../../kit/table/tableTypes';

const jobPath = (row: { job: string }) => `/jobs/${encodeURIComponent(row.job)}`;

/** What a certified application still asks for. */
export function outstanding(row: ApplicationRow): number {
  return row.status === 'certified' ? row.payable - row.received : 0;
}

/** The columns of a list of applications; with the job where the list is of many. */
export function useApplicationColumns(withJob: boolean): TableColumn<ApplicationRow>[] {
  const kinds = useColumnKinds();
  return useMemo(() => {
    const of = (figure: string) => (row: ApplicationRow) => ({ figure, job: row.job, application: row.number });
    const open = kinds.amount<ApplicationRow>('open', 'Outstanding', outstanding, { of: of('applicationOpen') });
    return [
      ...(withJob ? [jobColumn] : []),
      kinds.link<ApplicationRow>(
        'number',
        withJob ? 'No.' : 'Application',
        (row) => (withJob ? String(row.number) : `Application ${row.number}`),
        (row) => `${jobPath(row)}/billing/${row.number}`,
      ),
      kinds.day<ApplicationRow>('dated', 'Valuation date', (row) => row.dated),
      kinds.text<ApplicationRow>('status', 'State', (row) =>
        row.status === 'certified' ? `certified ${displayDate(row.certifiedOn)}` : row.status,
      ),
      kinds.amount<ApplicationRow>('gross', 'Gross to date', (row) => row.gross, { of: of('gross') }),
      kinds.amount<ApplicationRow>('retention', 'Retention', (row) => row.retention, {
        of: of('retention'),
        figLabel: 'Retention to date',
      }),
      kinds.amount<ApplicationRow>('due', 'Amount due', (row) => row.due, { of: of('due') }),
      kinds.amount<ApplicationRow>('payable', 'Payable', (row) => row.payable, { of: of('payable') }),
      kinds.amount<ApplicationRow>('received', 'Received', (row) => row.received),
      { ...open, cell: (row) => (outstanding(row) === 0 ? '–' : open.cell(row)) },
      { ...kinds.day<ApplicationRow>('dueOn', 'Due date', (row) => row.dueOn), cell: (row) => <DueDate row={row} /> },
    ];
  }, [kinds, withJob]);
}

const jobColumn: TableColumn<ApplicationRow> = {
  key: 'job',
  title: 'Job',
  cut: true,
  width: 210,
  value: (row) => `${row.job} ${row.jobName}, ${row.client}`,
  cell: (row) => <JobName job={row.job} name={row.jobName} />,
};

/** A job by its number, which opens it, and its name. */
export function JobName({ job, name }: { job: string; name: string }) {
  const withMonth = useWithMonth();
  return (
    <>
      <Link to={withMonth(jobPath({ job }))}>
        <b>{job}</b>
      </Link>{' '}
      {name}
    </>
  );
}

function DueDate({ row }: { row: ApplicationRow }) {
  return (
    <span className="whitespace-nowrap">
      {displayDate(row.dueOn)}{' '}
      {row.daysLate > 0 && (
        <span className="text-[var(--loss)]">
          <Sign name="overdue" bare /> {row.daysLate} days
        </span>
      )}
    </span>
  );
}
