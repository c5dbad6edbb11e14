import { present } from '../../../core/errors/known';
import { useBillingScheduleQuery, useSaveBillingScheduleMutation } from '../../ground/api/api';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import type { Instalment } from '../../../core/instalments/instalment';
import type { BillingScheduleView } from '../../../wire/instalments';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Fig } from '../../ground/workings/Fig';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { tidyPart } from '../../kit/typed/readPart';
import { Empty, Refused, Waiting } from '../../kit/States';
import { StableForm, useTyped, type OnTyped } from '../../kit/StableForm';
import { CashCurve } from './CashCurve';
import { LayOut } from './LayOut';
import { readSchedule, rowOf } from './scheduleForm';
import { workSchedule } from './workSchedule';

/** A job's fixed billing schedule: laid out or typed, seen as a table and a cash curve, and then saved. */
export function BillingSchedulePage() {
  const { number: job = '' } = useParams();
  const { month } = useAsOf();
  const keep = useKeepMonth();
  const { data, error, refetch } = useBillingScheduleQuery({ job, asOf: month });
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the billing schedule" />;
  if (data.lines.length === 0)
    return (
      <Empty title="No schedule of values to bill from yet">
        <Link to={keep(`/jobs/${encodeURIComponent(job)}/contract`)}>Go to the contract</Link>
      </Empty>
    );
  return (
    <StableForm of={data} stamp={data.seen}>
      {(opened, onTyped) => <Schedule job={job} view={opened} onTyped={onTyped} />}
    </StableForm>
  );
}

function Schedule({ job, view, onTyped }: { job: string; view: BillingScheduleView; onTyped: OnTyped }) {
  const { month, lastDay } = useAsOf();
  const { digits, show, exact, code } = useCurrency();
  const keep = useKeepMonth();
  const start = useMemo(() => view.instalments.map((it) => rowOf(it, digits)), [view.instalments, digits]);
  const [rows, setRows] = useState<readonly GridRow[]>(start);
  const [refused, setRefused] = useState<string | null>(null);
  const [save, { isLoading }] = useSaveBillingScheduleMutation();
  const stages = useMemo(() => view.stages.map((it) => it.name), [view.stages]);
  const { faults, read } = useMemo(() => readSchedule(rows, { stages, month, digits }), [rows, stages, month, digits]);
  const worked = useMemo(() => workSchedule(view, read, lastDay, digits), [view, read, lastDay, digits]);
  const all = new Map([...worked.faults, ...faults]);
  const changed = JSON.stringify(rows) !== JSON.stringify(start);
  useTyped(changed, onTyped);
  const at = (row: number) => read.findIndex((it) => it.row === row);
  const { contractSum, total, left } = worked.valued;
  const whole = read.length === 0 || left === 0;
  const layOut = (list: readonly Instalment[]) => {
    const before = rows;
    setRows(list.map((it) => rowOf(it, digits)));
    if (read.length > 0)
      toast(`${list.length} instalments are laid out; ${read.length} were there`, {
        duration: 12_000,
        action: { label: 'Undo', onClick: () => setRows(before) },
      });
  };
  const keepIt = async () => {
    try {
      await save({ job, body: { seen: view.seen, instalments: read.map((it) => it.instalment) } }).unwrap();
      onTyped(false);
      setRefused(null);
      toast(read.length === 0 ? 'The job is billed without a schedule' : 'Billing schedule saved');
    } catch (error) {
      setRefused(faultOf(error).message);
    }
  };
  const columns: GridColumn[] = [
    { key: 'name', title: 'Instalment', width: 'auto' },
    {
      ...{ key: 'stages', title: 'Stages (A + B)', width: 210 },
      offers: () => stages.map((value) => ({ value, label: '' })),
    },
    {
      ...{ key: 'due', title: 'Falls due', width: 118 },
      offers: () => [
        { value: 'start', label: 'of its stages' },
        { value: 'finish', label: 'of its stages' },
      ],
    },
    { key: 'part', title: `% or ${code}`, width: 112, numeric: true, tidy: tidyPart(digits) },
    {
      ...{ key: 'from', title: 'of the', width: 74 },
      offers: () => ['stages', 'job'].map((value) => ({ value, label: '' })),
    },
    {
      ...{ key: 'amount', title: 'Comes to', width: 112, numeric: true },
      show: (_, row) => (at(row) < 0 ? '' : show(present(worked.valued.instalments[at(row)]).amount)),
    },
    {
      ...{ key: 'expected', title: 'Expected', width: 100 },
      show: (_, row) => {
        const day = worked.days[at(row)];
        return day ? displayDate(day.expected) || <span style={{ color: 'var(--loss)' }}>no day</span> : '';
      },
    },
    {
      ...{ key: 'state', title: `By ${displayDate(lastDay)}`, width: 104 },
      show: (_, row) => {
        const day = worked.days[at(row)];
        if (!day) return '';
        if (day.reached !== null && day.reached <= lastDay) return <b>due</b>;
        return day.reached === null && day.expected !== null && day.expected <= lastDay ? 'not reached' : 'to come';
      },
    },
  ];
  return (
    <div>
      <div className="mb-2 flex items-end gap-4">
        <h2 className="m-0 whitespace-nowrap">
          <Link to={keep(`/jobs/${encodeURIComponent(job)}/billing`)}>Billing</Link>: fixed schedule
        </h2>
        <dl className="m-0 flex grow flex-wrap items-baseline gap-x-5">
          {read.length > 0 && (
            <>
              <Figure
                label={`Due by ${displayDate(lastDay)}`}
                value={
                  changed ? (
                    exact(worked.due)
                  ) : (
                    <Fig value={view.due} of={{ figure: 'scheduleDue', job }} label="Due by the schedule" exact />
                  )
                }
                strong
              />
              <Figure
                label="applied for"
                value={<Fig value={view.billed} of={{ figure: 'scheduleApplied', job }} label="Applied for" exact />}
              />
              <Figure label="scheduled" value={exact(total)} />
            </>
          )}
          <Figure
            label={read.length > 0 ? 'of contract sum' : 'contract sum'}
            value={<Fig value={contractSum} of={{ figure: 'contractSum', job }} label="Contract sum" exact />}
          />
          {!whole && <Figure label={left > 0 ? 'still to schedule' : 'too much'} value={exact(Math.abs(left))} strong fault />}
        </dl>
        {view.closed === null && (
          <>
            <LayOut view={view} onLaidOut={layOut} />
            <button
              type="button"
              className={`button ${changed ? 'main' : ''}`}
              disabled={!changed || all.size > 0 || !whole || isLoading}
              onClick={() => void keepIt()}
            >
              {changed && read.length === 0 ? 'Bill without one' : !changed && read.length > 0 ? 'Saved' : 'Save schedule'}
            </button>
          </>
        )}
      </div>
      {view.closed !== null && <p className="note">{view.closed}: the schedule stays as it is.</p>}
      {refused && <Refused message={refused} />}
      <EntryGrid
        label="Instalments"
        columns={view.closed === null ? columns : columns.map(asRead)}
        rows={rows}
        onRows={setRows}
        faults={all}
        grows={view.closed === null}
        height={300}
        blank={Math.max(4, rows.length + 2)}
      />
      <p className="note mb-0 mt-1 text-[12.5px]">
        {read.length === 0
          ? 'Lay the schedule out by its stages or at intervals, paste it, or type it. Falls due: a day, or start, finish, finish + 14. It can be saved once it comes to the contract sum.'
          : 'A stage is reached when the plan has the day it started or finished. Percentages are of the scheduled value of the stages, or of the job. Applications take their figures from here.'}
        {view.savedBy && ` Saved by ${view.savedBy}, ${displayDate(present(view.savedAt).slice(0, 10))}.`}
      </p>
      {read.length > 0 && <CashCurve cash={worked.cash} view={view} />}
    </div>
  );
}

/** A column as it is read where nothing is typed any more. */
function asRead(column: GridColumn): GridColumn {
  return column.show ? column : { ...column, show: (row) => row[column.key] ?? '' };
}

function Figure({ label, value, strong, fault }: { label: string; value: ReactNode; strong?: boolean; fault?: boolean }) {
  return (
    <div className="flex items-baseline gap-2">
      <dt className="note text-[12.5px]">{label}</dt>
      <dd
        className={`figure m-0 ${strong ? 'text-[16px] font-semibold' : ''}`}
        style={fault ? { color: 'var(--loss)' } : undefined}
      >
        {value}
      </dd>
    </div>
  );
}
