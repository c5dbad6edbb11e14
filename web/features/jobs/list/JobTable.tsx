import { useMemo } from 'react';
import { useDispatch } from 'react-redux';
import { Link } from 'react-router';
import { displayPercent } from '../../../../core/money/display';
import { displayPeriod } from '../../../../core/calendar/displayDate';
import { addMonths } from '../../../../core/calendar/plainDate';
import { ratio, type Rate } from '../../../../core/money/rate';
import { PROGRESS_FIGURES } from '../../../../core/progress/figures';
import { MOVE_FIGURES, type MoveFigure } from '../../../../core/workings/moveWorkings';
import { totalProgress } from '../../../../core/progress/workInProgress';
import type { ListedJob } from '../../../../wire/jobs';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { OverUnder } from '../../../ground/OverUnder';
import { Fig } from '../../../ground/workings/Fig';
import { opened } from '../../../ground/workings/workingsSlice';
import { Figure } from '../../../kit/Figure';
import { SmallMeasure } from '../../../kit/Measure';
import { ColumnChoice, useHiddenColumns } from '../../../kit/ColumnChoice';
import { Legend, Sign } from '../../../kit/Signs';
import { Table } from '../../../kit/table/Table';
import type { TableColumn, TableFoot } from '../../../kit/table/tableTypes';
import { JobFilters } from './JobFilters';
import { headOf, LISTED_FIGURES, type ListedFigure } from './listedFigures';
import { movedMargin, shownJobs, useJobFilter, type JobSortKey } from './useJobFilter';

/** Others stand for these. */
const LEAST_NEEDED = { below: 1200, columns: ['clientName', 'manager'] };

/** What may be hidden: all but what a job is known by. */
const CHOSEN = [
  ['measure', 'Measure'],
  ['status', 'Status'],
  ['clientName', 'Client'],
  ['manager', 'Manager'],
  ...LISTED_FIGURES.map(([key]) => [key, headOf(key)] as const),
  ['moved', 'Margin since last month'],
  ['overUnder', 'Over / under billed'],
].map(([key = '', title = '']) => ({ key, title }));

/** The jobs of the company: found, filtered and sorted as the address says. */
export function JobTable({ jobs }: { jobs: readonly ListedJob[] }) {
  const view = useJobFilter();
  const shown = useMemo(() => shownJobs(jobs, view), [jobs, view]);
  const columns = useColumns();
  const { code, show } = useCurrency();
  const [hidden, hide] = useHiddenColumns('ledrin.jobs.hidden', LEAST_NEEDED);
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
        hidden={hidden}
        rowClass={(it) => (it.inSchedule ? '' : 'text-[var(--soft)]')}
        order={{ key: view.sort, descending: view.descending, onOrder: (key) => view.sortBy(key as JobSortKey) }}
        foot={totals(shown, shown.length === jobs.length, show)}
      />
      <div className="note mt-2 flex flex-wrap items-center gap-x-6 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
        <span className="grow">Amounts in {code}. Tenders and jobs not yet awarded are not in the totals.</span>
        <ColumnChoice columns={CHOSEN} hidden={hidden} onHide={hide} />
      </div>
    </>
  );
}

function useColumns(): readonly TableColumn<ListedJob>[] {
  const withMonth = useWithMonth();
  const { show } = useCurrency();
  const { month } = useAsOf();
  return useMemo(() => {
    const since = displayPeriod(addMonths(month, -1)).slice(0, 3);
    const moved: TableColumn<ListedJob> = {
      key: 'moved',
      title: `since ${since}`,
      width: 74,
      right: true,
      value: movedMargin,
      cell: (it) => <Moved by={movedMargin(it)} job={it.number} />,
    };
    const page = (it: ListedJob) => withMonth(`/jobs/${encodeURIComponent(it.number)}`);
    const words = (key: 'status' | 'clientName' | 'manager', title: string, width: number): TableColumn<ListedJob> => ({
      key,
      title,
      width,
      cut: 'two-lines',
      value: (it) => it[key],
      cell: (it) => it[key],
    });
    return [
      {
        key: 'number',
        title: 'Job',
        width: 60,
        value: (it) => it.number,
        cell: (it) => (
          <Link to={page(it)}>
            <b>{it.number}</b>
          </Link>
        ),
      },
      {
        key: 'name',
        title: 'Name',
        cut: 'two-lines',
        value: (it) => it.name,
        cell: (it) => (
          <Link to={page(it)} className="text-[var(--ink)]">
            {it.name}
          </Link>
        ),
      },
      {
        key: 'measure',
        title: 'Measure',
        width: 134,
        cell: (it) => it.contractSum !== 0 && <SmallMeasure figures={it} label={`Measure of ${it.number}`} />,
      },
      words('status', 'Status', 88),
      words('clientName', 'Client', 110),
      words('manager', 'Manager', 88),
      ...LISTED_FIGURES.flatMap(([key, width]) => {
        const column: TableColumn<ListedJob> = {
          key,
          title: headOf(key),
          width,
          wraps: true,
          right: true,
          value: (it) => it[key],
          ...(PROGRESS_FIGURES[key].unit === 'money' && { number: show }),
          cell: (it) => (
            <>
              {key === 'margin' && it.margin < 0 && <Sign name="loss" bare />}{' '}
              <ListFigure of={key} figures={it} job={it.number} />
            </>
          ),
        };
        return key === 'margin' ? [column, moved] : [column];
      }),
      {
        key: 'overUnder',
        title: 'Over / under billed',
        width: 126,
        wraps: true,
        number: show,
        value: (it) => it.overbilled - it.underbilled,
        cell: (it) => <OverUnder over={it.overbilled} under={it.underbilled} job={it.number} />,
      },
    ];
  }, [withMonth, show, month]);
}

/** A change of margin in points, with its sign; nothing where it is none, or where there is nothing to compare with. */
function Moved({ by, job }: { by: number | null; job?: string }) {
  const dispatch = useDispatch();
  if (by === null || Math.abs(by) < 500) return <>–</>;
  const text = `${by > 0 ? '+' : ''}${displayPercent(by as Rate)}`;
  const look = by < 0 ? 'loss' : 'good';
  if (job === undefined) return <span className={look}>{text}</span>;
  return (
    <span className={look}>
      <Figure
        label={MOVE_FIGURES.marginMoved}
        onOpen={() => dispatch(opened({ figure: 'marginMoved' satisfies MoveFigure, job }))}
      >
        {text}
      </Figure>
    </span>
  );
}

/** By how much the margin of several jobs together moved; null where none was there before. */
function movedTogether(jobs: readonly ListedJob[], margin: number): number | null {
  const sum = (of: 'contractSum' | 'estimate') => jobs.reduce((total, it) => total + (it.before?.[of] ?? 0), 0);
  const contractSum = sum('contractSum');
  return contractSum === 0 ? null : margin - ratio(contractSum - sum('estimate'), contractSum);
}

/** What the jobs of the schedule come to. The workings of a total are those of all jobs: a filtered list shows plain sums. */
function totals(jobs: readonly ListedJob[], all: boolean, show: (cents: number) => string): TableFoot {
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
      moved: <Moved by={movedTogether(counted, total.margin)} />,
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
