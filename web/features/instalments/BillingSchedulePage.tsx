import { at } from '../../../core/errors/known';
import { useBillingScheduleQuery, useSaveBillingScheduleMutation } from '../../ground/api/api';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { useStanding } from '../../ground/useStanding';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import type { Instalment } from '../../../core/instalments/instalment';
import type { BillingScheduleView } from '../../../wire/instalments';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { Fig } from '../../ground/workings/Fig';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { asRead, type GridColumn, type GridRow } from '../../kit/grid/gridTypes';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { Empty, Refused, Waiting } from '../../kit/States';
import { StableForm, useTyped, type OnTyped } from '../../kit/StableForm';
import { CashCurve } from './CashCurve';
import { LayOut } from './LayOut';
import { instalmentRow, readSchedule, scheduleCodecs } from './scheduleForm';
import { workSchedule } from './workSchedule';

/** A job's fixed billing schedule: laid out or typed, seen as a table and a cash curve, and then saved. */
export function BillingSchedulePage() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const withMonth = useWithMonth();
  const may = useMay();
  const { data, error, refetch } = useStanding(useBillingScheduleQuery({ job, asOf }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the billing schedule" />;
  if (data.lines.length === 0)
    return (
      <Empty title="No schedule of values to bill from yet">
        <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/contract`)}>Go to the contract</Link>
      </Empty>
    );
  return (
    <StableForm
      of={may('schedule-billing') ? data : { ...data, closed: data.closed ?? 'You read the schedule; accountants make it' }}
      stamp={data.seen}
    >
      {(opened, onTyped) => <Schedule job={job} view={opened} onTyped={onTyped} />}
    </StableForm>
  );
}

/** What is typed of a billing schedule, with what it comes to. */
function useSchedule(view: BillingScheduleView) {
  const { month, lastDay } = useAsOf();
  const { digits } = useCurrency();
  const stages = useMemo(() => view.stages.map((it) => it.name), [view.stages]);
  const codecs = useMemo(() => scheduleCodecs({ stages, month, digits }), [stages, month, digits]);
  const start = useMemo(() => view.instalments.map((it) => instalmentRow(it, codecs)), [view.instalments, codecs]);
  const [rows, setRows] = useState<readonly GridRow[]>(start);
  const { faults, read } = useMemo(() => readSchedule(rows, codecs), [rows, codecs]);
  const worked = useMemo(() => workSchedule(view, read, lastDay, digits), [view, read, lastDay, digits]);
  const replaceAll = (list: readonly Instalment[]) => {
    const before = rows;
    setRows(list.map((it) => instalmentRow(it, codecs)));
    if (read.length > 0)
      toast(`${list.length} instalments are laid out; ${read.length} were there`, {
        duration: 12_000,
        action: { label: 'Undo', onClick: () => setRows(before) },
      });
  };
  return {
    rows,
    setRows,
    codecs,
    stages,
    read,
    worked,
    layOut: replaceAll,
    faults: new Map([...worked.faults, ...faults]),
    changed: JSON.stringify(rows) !== JSON.stringify(start),
    whole: read.length === 0 || worked.valued.left === 0,
  };
}

type Typed = ReturnType<typeof useSchedule>;
type ScheduleProps = { job: string; view: BillingScheduleView; onTyped: OnTyped };

function Schedule({ job, view, onTyped }: ScheduleProps) {
  const typed = useSchedule(view);
  const { rows, setRows, read, worked, faults, changed } = typed;
  const { refused, attempt } = useAttempt();
  const columns = useInstalmentColumns(typed);
  useTyped(changed, onTyped);
  return (
    <div>
      <Head job={job} view={view} typed={typed} onTyped={onTyped} attempt={attempt} />
      {view.closed !== null && <p className="note">{view.closed}: the schedule stays as it is.</p>}
      {refused && <Refused message={refused.message} />}
      <EntryGrid
        label="Instalments"
        columns={view.closed === null ? columns : columns.map(asRead)}
        rows={rows}
        onRows={setRows}
        faults={faults}
        grows={view.closed === null}
        height={300}
        blank={Math.max(4, rows.length + 2)}
      />
      <p className="note mb-0 mt-1 text-[12.5px]">
        {read.length === 0
          ? 'Lay the schedule out by its stages or at intervals, paste it, or type it. Falls due: a day, or start, finish, finish + 14. It can be saved once it comes to the contract sum.'
          : 'A stage is reached when the plan has the day it started or finished. Percentages are of the scheduled value of the stages, or of the job. Applications take their figures from here.'}
        {view.savedBy && ` Saved by ${view.savedBy}, ${displayDate(view.savedAt?.slice(0, 10) ?? null)}.`}
      </p>
      {read.length > 0 && <CashCurve cash={worked.cash} view={view} />}
    </div>
  );
}

function useInstalmentColumns({ codecs, stages, read, worked }: Typed): GridColumn[] {
  const { lastDay } = useAsOf();
  const { show, code } = useCurrency();
  const placeOf = (row: number) => read.findIndex((it) => it.row === row);
  const dayOf = (row: number) => worked.days[placeOf(row)];
  return columnsOf(codecs, [
    { key: 'name', title: 'Instalment', width: 'auto' },
    {
      key: 'stages',
      title: 'Stages (A + B)',
      width: 210,
      offers: () => stages.map((value) => ({ value, label: '' })),
    },
    {
      key: 'due',
      title: 'Falls due',
      width: 118,
      offers: () => ['start', 'finish'].map((value) => ({ value, label: 'of its stages' })),
    },
    { key: 'part', title: `% or ${code}`, width: 112 },
    {
      key: 'from',
      title: 'Basis',
      width: 74,
      offers: () => ['stages', 'job'].map((value) => ({ value, label: '' })),
    },
    {
      key: 'amount',
      title: 'Amount',
      width: 112,
      numeric: true,
      show: (_, row) => (placeOf(row) < 0 ? '' : show(at(worked.valued.instalments, placeOf(row)).amount)),
    },
    {
      key: 'expected',
      title: 'Expected',
      width: 100,
      show: (_, row) => {
        const day = dayOf(row);
        return day ? displayDate(day.expected) || <span className="text-[var(--loss)]">no day</span> : '';
      },
    },
    {
      key: 'state',
      title: `By ${displayDate(lastDay)}`,
      width: 104,
      show: (_, row) => {
        const day = dayOf(row);
        if (!day) return '';
        if (day.reached !== null && day.reached <= lastDay) return <b>due</b>;
        return day.reached === null && day.expected !== null && day.expected <= lastDay ? 'not reached' : 'to come';
      },
    },
  ]);
}

/** Which job, what the schedule comes to, and what may be done with it. */
function Head({
  job,
  view,
  typed,
  onTyped,
  attempt,
}: ScheduleProps & { typed: Typed; attempt: ReturnType<typeof useAttempt>['attempt'] }) {
  const withMonth = useWithMonth();
  const [save, { isLoading }] = useSaveBillingScheduleMutation();
  const { read, faults, changed, whole, layOut } = typed;
  const saveIt = async () => {
    const body = { seen: view.seen, instalments: read.map((it) => it.instalment) };
    const message = read.length === 0 ? 'The job is billed without a schedule' : 'Billing schedule saved';
    if (await attempt(() => save({ job, body }).unwrap(), message)) onTyped(false);
  };
  return (
    <div className="mb-2 flex items-end gap-4">
      <h2 className="m-0 whitespace-nowrap">
        <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/billing`)}>Billing</Link>: fixed schedule
      </h2>
      <Figures job={job} view={view} typed={typed} />
      {view.closed === null && (
        <>
          <LayOut view={view} onLaidOut={layOut} />
          <button
            type="button"
            className={`button ${changed ? 'main' : ''}`}
            disabled={!changed || faults.size > 0 || !whole || isLoading}
            onClick={() => void saveIt()}
          >
            {changed && read.length === 0 ? 'Bill without one' : !changed && read.length > 0 ? 'Saved' : 'Save schedule'}
          </button>
        </>
      )}
    </div>
  );
}

function Figures({ job, view, typed }: { job: string; view: BillingScheduleView; typed: Typed }) {
  const { lastDay } = useAsOf();
  const { exact } = useCurrency();
  const { read, worked, changed, whole } = typed;
  const { contractSum, total, left } = worked.valued;
  const fig = (figure: string, value: number, label: string) => <Fig value={value} of={{ figure, job }} label={label} exact />;
  return (
    <dl className="m-0 flex grow flex-wrap items-baseline gap-x-5">
      {read.length > 0 && (
        <>
          <Figure
            label={`Due by ${displayDate(lastDay)}`}
            value={changed ? exact(worked.due) : fig('scheduleDue', view.due, 'Due by the schedule')}
            strong
          />
          <Figure label="applied for" value={fig('scheduleApplied', view.billed, 'Applied for')} />
          <Figure label="scheduled" value={exact(total)} />
        </>
      )}
      <Figure
        label={read.length > 0 ? 'of contract sum' : 'contract sum'}
        value={fig('contractSum', contractSum, 'Contract sum')}
      />
      {!whole && <Figure label={left > 0 ? 'still to schedule' : 'too much'} value={exact(Math.abs(left))} strong fault />}
    </dl>
  );
}

function Figure({ label, value, strong, fault }: { label: string; value: ReactNode; strong?: boolean; fault?: boolean }) {
  return (
    <div className="flex items-baseline gap-2">
      <dt className="note text-[12.5px]">{label}</dt>
      <dd className={`figure m-0 ${strong ? 'text-[16px] font-semibold' : ''} ${fault ? 'text-[var(--loss)]' : ''}`}>{value}</dd>
    </div>
  );
}
