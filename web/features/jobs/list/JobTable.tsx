import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayPercent } from '../../../../core/money/display';
import type { Rate } from '../../../../core/money/rate';
import { PROGRESS_FIGURES } from '../../../../core/progress/figures';
import { totalProgress } from '../../../../core/progress/workInProgress';
import type { JobListRow } from '../../../../wire/jobs';
import { useKeepMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { OverUnder } from '../../../ground/OverUnder';
import { Fig } from '../../../ground/workings/Fig';
import { SmallMeasure } from '../../../kit/Measure';
import { Legend, Sign } from '../../../kit/Signs';
import { Table } from '../../../kit/table/Table';
import type { TableColumn, TableFoot } from '../../../kit/table/tableTypes';
import { JobFilters } from './JobFilters';
import { headOf, LISTED_FIGURES, type ListedFigure } from './listedFigures';
import { shownJobs, useJobFilter, type JobSortKey } from './useJobFilter';

/** The jobs of the company: found, filtered and sorted as the address says. */
export function JobTable({ jobs }: { jobs: readonly JobListRow[] }) {
  const view = useJobFilter();
  const shown = useMemo(() => shownJobs(jobs, view), [jobs, view]);
  const columns = useColumns();
  const { code, show } = useCurrency();
  return (
    <>
      <JobFilters jobs={jobs} view={view} />
      <Table
        label="Jobs"
        columns={columns}
        rows={shown}
        rowKey={(it) => it.number}
        height="window"
        even
        rowClass={(it) => (it.inSchedule ? '' : 'text-[var(--soft)]')}
        order={{ key: view.sort, descending: view.descending, onOrder: (key) => view.sortBy(key as JobSortKey) }}
        foot={totals(shown, shown.length === jobs.length, show)}
      />
      <p className="note mt-2 flex flex-wrap gap-x-6 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
        <span>Amounts in {code}. Tenders and jobs not yet awarded are not in the totals.</span>
      </p>
    </>
  );
}

function useColumns(): readonly TableColumn<JobListRow>[] {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  return useMemo(() => {
    const page = (it: JobListRow) => keep(`/jobs/${encodeURIComponent(it.number)}`);
    const words = (key: 'status' | 'clientName' | 'manager', title: string, width: number): TableColumn<JobListRow> => ({
      ...{ key, title, width, cut: true, value: (it) => it[key], cell: (it) => it[key] },
    });
    return [
      {
        ...{ key: 'number', title: 'Job', width: 60, value: (it) => it.number },
        cell: (it) => (
          <Link to={page(it)}>
            <b>{it.number}</b>
          </Link>
        ),
      },
      {
        ...{ key: 'name', title: 'Name', cut: true, value: (it) => it.name },
        cell: (it) => (
          <Link to={page(it)} className="text-[var(--ink)]">
            {it.name}
          </Link>
        ),
      },
      {
        ...{ key: 'measure', title: 'Measure', width: 136 },
        cell: (it) => it.contractSum !== 0 && <SmallMeasure figures={it} label={`Measure of ${it.number}`} />,
      },
      words('status', 'Status', 88),
      words('clientName', 'Client', 118),
      words('manager', 'Manager', 98),
      ...LISTED_FIGURES.map(([key, width]): TableColumn<JobListRow> => ({
        ...{ key, title: headOf(key), width, wraps: true, right: true, value: (it) => it[key] },
        ...(PROGRESS_FIGURES[key].unit === 'money' && { number: show }),
        cell: (it) => (
          <>
            {key === 'margin' && it.margin < 0 && <Sign name="loss" bare />} <ListFigure of={key} figures={it} job={it.number} />
          </>
        ),
      })),
      {
        ...{ key: 'overUnder', title: 'Over / under billed', width: 126, wraps: true, number: show },
        value: (it) => it.overbilled - it.underbilled,
        cell: (it) => <OverUnder over={it.overbilled} under={it.underbilled} job={it.number} />,
      },
    ];
  }, [keep, show]);
}

/** What the jobs of the schedule come to. The workings of a total are those of all jobs: a filtered list shows plain sums. */
function totals(jobs: readonly JobListRow[], all: boolean, show: (cents: number) => string): TableFoot {
  const counted = jobs.filter((job) => job.inSchedule);
  const total = totalProgress(counted);
  return {
    label: `${counted.length} ${counted.length === 1 ? 'job' : 'jobs'} in the schedule`,
    cells: {
      measure: <SmallMeasure figures={{ ...total, received: 0 }} label="Measure of all jobs" />,
      ...Object.fromEntries(
        LISTED_FIGURES.map(([key]) => [
          key,
          all ? <ListFigure key={key} of={key} figures={total} /> : written(key, total[key], show),
        ]),
      ),
      overUnder: <OverUnder over={total.overbilled} under={total.underbilled} worked={all} />,
    },
  };
}

function written(key: ListedFigure, value: number, show: (cents: number) => string): string {
  return PROGRESS_FIGURES[key].unit === 'percent' ? displayPercent(value as Rate) : show(value);
}

/** A figure of a job, or of all of them, with its workings. */
function ListFigure({ of, figures, job }: { of: ListedFigure; figures: Record<ListedFigure, number>; job?: string }) {
  const { title, unit } = PROGRESS_FIGURES[of];
  return <Fig value={figures[of]} unit={unit} of={{ figure: of, ...(job !== undefined && { job }) }} label={title} />;
}
