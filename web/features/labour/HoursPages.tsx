import { useMemo, useState } from 'react';
import type { LabourCodeRow, LabourTaskRow, LabourView } from '../../../wire/labour';
import { useLabourByCodeQuery, useLabourOfJobQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import type { LookedLines } from '../../ground/costLines/useLookedLines';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused } from '../../kit/States';
import { Legend } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import { useSayDone } from './useSayDone';
import { figureColumns, Tasks, totalCells } from './HoursTable';

interface JobHoursProps {
  job: string;
  /** As the cost lines are looked at; null where somebody may not read them otherwise. */
  looked: LookedLines | null;
  /** A forecast is typed and not saved: what is done is said once it is. */
  forecastTyped: boolean;
}

/** Hours by task of one job: which task is running over, while it can still be changed. */
export function JobHours({ job, looked, forecastTyped }: JobHoursProps) {
  const { asOf } = useAsOf();
  const hours = useLabourOfJobQuery({ job, asOf });
  return (
    <Loaded of={hours} what={`the hours of job ${job}`}>
      {(view) => <OfJob job={job} view={view} looked={looked} forecastTyped={forecastTyped} />}
    </Loaded>
  );
}

function OfJob({ job, view, looked, forecastTyped }: JobHoursProps & { view: LabourView }) {
  const { say, refused } = useSayDone(job);
  const sayDone = useMemo(
    () => (say && !forecastTyped ? (row: LabourTaskRow, percent: number) => void say(row, percent) : null),
    [say, forecastTyped],
  );
  if (view.tasks.length === 0)
    return (
      <Empty title="No labour in the budget and none to date">
        <p className="note m-0">Hours come with the budget of a job and with the labour posted to it.</p>
      </Empty>
    );
  return (
    <>
      <div className="mb-2 flex items-baseline gap-4">
        <h2 className="whitespace-nowrap">Hours by task</h2>
        <span className="note">
          {forecastTyped
            ? 'A forecast is typed and not saved; save it, then set here what is done.'
            : 'As the forecast of a line says; where it says nothing, as budgeted. % done set here is the forecast of the line.'}
        </span>
        <span className="ml-auto">
          <Legend names={['overrun', 'unbudgeted']} />
        </span>
      </div>
      {refused && <Refused message={refused.message} />}
      <Tasks label="Hours by task" rows={view.tasks} total={view.total} job={job} say={sayDone} looked={looked} />
    </>
  );
}

/** Hours by cost code over all running jobs; a code that is chosen shows its tasks, job by job. */
export function HoursByCodePage() {
  const { asOf } = useAsOf();
  const hours = useLabourByCodeQuery({ asOf });
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <div className="page">
      <PageHead title="Hours by task" />
      <Loaded of={hours} what="the hours of all jobs">
        {({ codes, total }) => {
          if (codes.length === 0) return <Empty title="No labour on jobs that are awarded or on site" />;
          const code = codes.find((it) => it.costCode === chosen);
          return (
            <>
              <p className="m-0 mb-2 flex items-baseline">
                <span className="note">Jobs that are awarded or on site. Choose a cost code for its tasks, job by job.</span>
                <span className="ml-auto">
                  <Legend names={['overrun']} />
                </span>
              </p>
              <Codes codes={codes} total={total} chosen={chosen} onChoose={setChosen} />
              {code && (
                <section className="mt-6">
                  <h2 className="mb-2">
                    {code.costCode} {code.description}
                  </h2>
                  <Tasks key={code.costCode} label={`Tasks of ${code.costCode}`} rows={code.tasks} total={code} job={null} />
                </section>
              )}
            </>
          );
        }}
      </Loaded>
    </div>
  );
}

interface CodesProps {
  codes: readonly LabourCodeRow[];
  total: LabourView['total'];
  chosen: string | null;
  onChoose: (code: string) => void;
}

function Codes({ codes, total, chosen, onChoose }: CodesProps) {
  const columns = useMemo(
    () => [
      {
        key: 'code',
        title: 'Cost code',
        value: (it: LabourCodeRow) => `${it.costCode} ${it.description}`,
        cell: (it: LabourCodeRow) => (
          <button type="button" className="fig text-[var(--accent)]" onClick={() => onChoose(it.costCode)}>
            {it.costCode} {it.description}
          </button>
        ),
      },
      {
        key: 'jobs',
        title: 'Jobs',
        value: (it: LabourCodeRow) => new Set(it.tasks.map((task) => task.job)).size,
        number: String,
        cell: (it: LabourCodeRow) => new Set(it.tasks.map((task) => task.job)).size,
      },
      ...figureColumns<LabourCodeRow>(null),
    ],
    [onChoose],
  );
  return (
    <Table
      label="Hours by cost code"
      columns={columns}
      rows={codes}
      rowKey={(it) => it.costCode}
      isCurrent={(it) => it.costCode === chosen}
      sorted={{ key: 'over', descending: true }}
      foot={{ label: 'All', cells: totalCells(total, null) }}
    />
  );
}
