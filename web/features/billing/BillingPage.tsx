import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { displayPeriod } from '../../../core/calendar/displayDate';
import type { ApplicationRow, BillingRegister } from '../../../wire/billing';
import { useBillingRegisterQuery } from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useClientNames } from '../../ground/partyNames';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { OverUnder } from '../../ground/OverUnder';
import { Fig } from '../../ground/workings/Fig';
import { PageHead } from '../../kit/PageHead';
import { Legend } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import { toggled } from '../../kit/table/toggled';
import { JobName, outstanding, useApplicationColumns } from './applicationColumns';

type Unbilled = BillingRegister['unbilled'][number];

/** Billing over all jobs: who waits for an application, what waits to be certified, what is open. */
export function BillingPage() {
  const { asOf, month } = useAsOf();
  const register = useBillingRegisterQuery({ asOf });
  const { code } = useCurrency();
  return (
    <div className="page">
      <PageHead title="Billing">
        <span className="note flex gap-4 text-[12.5px]">
          <Legend names={['over', 'under', 'overdue']} />
          <span>Amounts in {code}</span>
        </span>
      </PageHead>
      <Loaded of={register} what="the billing">
        {({ unbilled, applications }) => (
          <>
            <h2 className="mb-1">No application in {displayPeriod(month)} yet</h2>
            {unbilled.length === 0 ? <p className="note">Every live job has one.</p> : <Waiting rows={unbilled} />}
            <Applications title="Drafted or submitted" rows={applications.filter((it) => it.status !== 'certified')} />
            <Applications
              title="Certified: unpaid, or dated this month"
              rows={applications.filter((it) => it.status === 'certified')}
            />
          </>
        )}
      </Loaded>
    </div>
  );
}

/** Live jobs that have no application of the month. */
function Waiting({ rows }: { rows: readonly Unbilled[] }) {
  const kinds = useColumnKinds();
  const nameOf = useClientNames();
  const columns = useMemo(
    () => [
      {
        ...kinds.text<Unbilled>('job', 'Job', (it) => `${it.job} ${it.name}`),
        cell: (it: Unbilled) => <JobName job={it.job} name={it.name} />,
      },
      kinds.text<Unbilled>('client', 'Client', (it) => nameOf(it.client), { cut: true }),
      kinds.text<Unbilled>('last', 'Last application', (it) => String(it.lastNumber ?? 'none')),
      {
        ...kinds.amount<Unbilled>('overUnder', 'Over / under billed', (it) => it.overbilled - it.underbilled),
        cell: (it: Unbilled) => <OverUnder over={it.overbilled} under={it.underbilled} job={it.job} />,
      },
      {
        ...kinds.amount<Unbilled>('schedule', 'Due by schedule', (it) => it.bySchedule ?? 0),
        cell: (it: Unbilled) =>
          it.bySchedule !== null && (
            <Fig value={it.bySchedule} of={{ figure: 'scheduleToBill', job: it.job }} label="To bill by the schedule" />
          ),
      },
      {
        key: 'next',
        title: <span className="sr-only">Next</span>,
        cell: (it: Unbilled) => (
          <May do="apply">
            <Start job={it.job} />
          </May>
        ),
      },
    ],
    [kinds, nameOf],
  );
  return <Table label="Jobs without an application" columns={columns} rows={rows} rowKey={(it) => it.job} />;
}

function Start({ job }: { job: string }) {
  const keep = useKeepMonth();
  return <Link to={keep(`/jobs/${encodeURIComponent(job)}/billing`)}>Start application</Link>;
}

/** By client, with what each comes to. */
function Applications({ title, rows }: { title: string; rows: readonly ApplicationRow[] }) {
  const { exact } = useCurrency();
  const nameOf = useClientNames();
  const columns = useApplicationColumns(true);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const sums = (of: readonly ApplicationRow[]) => {
    const sum = (value: (row: ApplicationRow) => number) => exact(of.reduce((total, row) => total + value(row), 0));
    return {
      due: sum((row) => row.due),
      payable: sum((row) => row.payable),
      received: sum((row) => row.received),
      open: sum(outstanding),
    };
  };
  return (
    <>
      <h2 className="mb-1 mt-5">{title}</h2>
      {rows.length === 0 ? (
        <p className="note">None.</p>
      ) : (
        <Table<ApplicationRow>
          label={title}
          columns={columns}
          rows={rows}
          rowKey={(row) => `${row.job}/${row.number}`}
          groups={{
            ...{ of: (row) => nameOf(row.client), sums, folded },
            onFold: (client) => setFolded(toggled(folded, client)),
          }}
          foot={{ label: `${rows.length} ${rows.length === 1 ? 'application' : 'applications'}`, cells: sums(rows) }}
          dense
        />
      )}
    </>
  );
}
