import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { displayPeriod } from '../../../core/calendar/displayDate';
import type { ApplicationRow, BillingRegister, ReleaseRow } from '../../../wire/billing';
import { useBillingRegisterQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { plural } from '../../../core/names/plural';
import { useAsOf, useWithMonth } from '../../ground/asOf';
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
        {({ unbilled, applications, releases }) => (
          <>
            <h2 className="mb-1">No application in {displayPeriod(month)} yet</h2>
            {unbilled.length === 0 ? <p className="note">Every live job has one.</p> : <Waiting rows={unbilled} />}
            <Applications title="Drafted or submitted" rows={applications.filter((it) => it.status !== 'certified')} />
            <Applications
              title="Certified: unpaid, or dated this month"
              rows={applications.filter((it) => it.status === 'certified')}
            />
            <Others title="Retention released: unpaid, or dated this month" of="release" rows={releases} />
            <Others title="Charged cost invoiced: unpaid, or dated this month" of="daywork" rows={releases} />
            <Outstanding applications={applications} releases={releases} />
          </>
        )}
      </Loaded>
    </div>
  );
}

const unpaid = (it: ReleaseRow) => it.payable - it.received;

/** What all invoices together still ask for, as accounts receivable and ageing have it. */
function Outstanding({ applications, releases }: Pick<BillingRegister, 'applications' | 'releases'>) {
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
  const sum = [...applications.map(outstanding), ...releases.map(unpaid)].reduce((total, it) => total + it, 0);
  return (
    <p className="mt-5">
      <span className="note">Outstanding in all, as in accounts receivable</span> <b className="figure">{exact(sum)}</b>{' '}
      <Link to={withMonth('/reports/ageing')}>by age</Link>
    </p>
  );
}

/** Invoices of released retention, or of charged cost. */
function Others({ title, of, rows: all }: { title: string; of: ReleaseRow['kind']; rows: readonly ReleaseRow[] }) {
  const rows = all.filter((it) => it.kind === of);
  const kinds = useColumnKinds();
  const nameOf = useClientNames();
  const { exact } = useCurrency();
  const columns = useMemo(
    () => [
      {
        ...kinds.text<ReleaseRow>('job', 'Job', (it) => `${it.job} ${it.jobName}`, { cut: true, width: 210 }),
        cell: (it: ReleaseRow) => <JobName job={it.job} name={it.jobName} />,
      },
      kinds.text<ReleaseRow>('client', 'Client', (it) => nameOf(it.client), { cut: true }),
      kinds.link<ReleaseRow>(
        'reference',
        of === 'release' ? 'Release' : 'Invoice',
        (it) => it.reference,
        (it) =>
          it.kind === 'release'
            ? `/jobs/${encodeURIComponent(it.job)}/billing`
            : addressOf({ place: 'daywork', job: it.job, document: it.reference }),
      ),
      kinds.day<ReleaseRow>('dated', 'Date', (it) => it.dated),
      kinds.amount<ReleaseRow>('amount', 'Amount', (it) => it.amount),
      kinds.amount<ReleaseRow>('payable', 'Payable', (it) => it.payable),
      kinds.amount<ReleaseRow>('received', 'Received', (it) => it.received),
      kinds.amount<ReleaseRow>('open', 'Outstanding', unpaid),
      kinds.day<ReleaseRow>('dueOn', 'Due date', (it) => it.dueOn),
    ],
    [kinds, nameOf, of],
  );
  if (rows.length === 0) return null;
  const sum = (value: (row: ReleaseRow) => number) => exact(rows.reduce((total, row) => total + value(row), 0));
  const cells = {
    amount: sum((it) => it.amount),
    payable: sum((it) => it.payable),
    received: sum((it) => it.received),
    open: sum(unpaid),
  };
  return (
    <>
      <h2 className="mb-1 mt-5">{title}</h2>
      <Table
        label={of === 'release' ? 'Retention released' : 'Charged cost invoiced'}
        columns={columns}
        rows={rows}
        rowKey={(it) => `${it.job}/${it.reference}`}
        foot={{ label: plural(rows.length, of === 'release' ? 'release' : 'invoice'), cells }}
        dense
      />
    </>
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
  const withMonth = useWithMonth();
  return <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/billing`)}>Start application</Link>;
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
            of: (row) => nameOf(row.client),
            sums,
            folded,
            onFold: (client) => setFolded(toggled(folded, client)),
          }}
          foot={{ label: `${rows.length} ${rows.length === 1 ? 'application' : 'applications'}`, cells: sums(rows) }}
          dense
        />
      )}
    </>
  );
}
