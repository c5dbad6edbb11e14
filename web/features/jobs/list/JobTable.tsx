import { SortHead } from '../../../kit/table/SortHead';
import { useMemo } from 'react';
import type { JobListRow } from '../../../../wire/jobs';
import { useCurrency } from '../../../ground/company';
import { Legend } from '../../../kit/Signs';
import { JobFilters } from './JobFilters';
import { headOf, LISTED_FIGURES } from './listedFigures';
import { JobRow, JobTotals } from './JobRow';
import { shownJobs, useJobFilter, type JobSortKey } from './useJobFilter';

const HEADS: readonly { key: JobSortKey; title: string; numeric?: boolean; width?: number | string }[] = [
  { key: 'number', title: 'Job', width: 60 },
  { key: 'name', title: 'Name' },
  { key: 'status', title: 'Status', width: 88 },
  { key: 'clientName', title: 'Client', width: 118 },
  { key: 'manager', title: 'Manager', width: 98 },
  ...LISTED_FIGURES.map(([key, width]) => ({ key, title: headOf(key), numeric: true, width })),
  { key: 'overUnder', title: 'Over / under billed', numeric: true, width: 126 },
];

/** The jobs of the company: found, filtered and sorted as the address says. */
export function JobTable({ jobs }: { jobs: readonly JobListRow[] }) {
  const view = useJobFilter();
  const shown = useMemo(() => shownJobs(jobs, view), [jobs, view]);
  const heads = (from: number, to?: number) =>
    HEADS.slice(from, to).map((head) => (
      <SortHead
        key={head.key}
        className={`whitespace-normal ${head.numeric ? 'num' : ''}`}
        width={head.width}
        way={view.sort === head.key ? (view.descending ? 'down' : 'up') : null}
        onSort={() => view.sortBy(head.key)}
      >
        {head.title}
      </SortHead>
    ));
  return (
    <>
      <JobFilters jobs={jobs} view={view} />
      <div className="scroll" data-window>
        <table className="ledger even">
          <thead>
            <tr>
              {heads(0, 2)}
              <th className="w-[136px]">Measure</th>
              {heads(2)}
            </tr>
          </thead>
          <tbody>
            {shown.map((job) => (
              <JobRow key={job.number} job={job} />
            ))}
          </tbody>
          <JobTotals jobs={shown} all={shown.length === jobs.length} />
        </table>
      </div>
      <p className="note mt-2 flex flex-wrap gap-x-6 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
        <span>
          Amounts in <Currency />. Tenders and jobs not yet awarded are not in the totals.
        </span>
      </p>
    </>
  );
}

function Currency() {
  return <>{useCurrency().code}</>;
}
