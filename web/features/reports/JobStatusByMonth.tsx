import { useMemo } from 'react';
import { useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { STATUS_FIGURE_NAMES, STATUS_FIGURES } from '../../../core/progress/contractStatus';
import { statusName } from '../../../core/workings/contractStatusWorkings';
import type { StatusOfMonth } from '../../../wire/jobs';
import { useContractStatusQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { Loaded } from '../../ground/Loaded';
import { Downloads } from '../../ground/reports/ReportHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';

/** A job month by month: what was signed, what changes made of it, and what it is estimated at. */
export function JobStatusByMonth() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const status = useContractStatusQuery({ job, asOf });
  return (
    <Loaded of={status} what="the contract status">
      {(months) => <Months job={job} months={months} />}
    </Loaded>
  );
}

function Months({ job, months }: { job: string; months: readonly StatusOfMonth[] }) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.day<StatusOfMonth>('on', 'As of', (it) => it.on, { stays: true }),
      ...STATUS_FIGURE_NAMES.map((figure) =>
        kinds.amount<StatusOfMonth>(figure, STATUS_FIGURES[figure].title, (it) => it[figure], {
          of: (it) => ({ figure: statusName(figure), job, on: it.on }),
          figLabel: (it) => `${STATUS_FIGURES[figure].title}, ${displayDate(it.on)}`,
        }),
      ),
    ],
    [kinds, job],
  );
  if (months.length === 0) return <Empty title="Not awarded to date">The status begins with the month of the award.</Empty>;
  return (
    <>
      <div className="mb-1 flex items-end justify-between">
        <h2>Contract status</h2>
        <Downloads name="contract-status" job={job} />
      </div>
      <Table unsearched label="Contract status by month" columns={columns} rows={months} rowKey={(it) => it.on} />
      <p className="note mt-2 text-[12.5px]">
        Original cost + changes + overrun = estimate at completion. A figure opens into its workings of that day.
      </p>
    </>
  );
}
