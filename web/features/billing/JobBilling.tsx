import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { JobBilling as JobBillingData } from '../../../wire/billing';
import { useJobBillingQuery, useStartApplicationMutation } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { Fig } from '../../ground/workings/Fig';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import { useOpening } from '../../kit/useOpening';
import { useApplicationColumns } from './applicationColumns';
import { ReceiveForm, ReleaseForm } from './ReceiveForm';

/** A job's applications and releases of retention; from here the next application is started. */
export function JobBilling() {
  const { number = '' } = useParams();
  const { asOf } = useAsOf();
  const billing = useJobBillingQuery({ job: number, asOf });
  return (
    <Loaded of={billing} what="the applications">
      {(data) => (
        <>
          <May do="apply">
            <StartApplication job={number} data={data} next={(data.applications.at(-1)?.number ?? 0) + 1} />
          </May>
          <Applications job={number} data={data} />
          {data.releases.length > 0 && <Releases job={number} releases={data.releases} />}
          {data.retentionHeld > 0 && (
            <May do="release-retention">
              <Release job={number} held={data.retentionHeld} taxName={data.taxName} taxRate={data.taxRate} />
            </May>
          )}
        </>
      )}
    </Loaded>
  );
}

function Applications({ job, data }: { job: string; data: JobBillingData }) {
  const { code } = useCurrency();
  const columns = useApplicationColumns(false);
  const held = <Fig value={data.retentionHeld} of={{ figure: 'retentionHeld', job }} label="Retention held" />;
  return (
    <Table
      label="Applications"
      columns={columns}
      rows={data.applications}
      rowKey={(it) => String(it.number)}
      empty="No applications to date."
      foot={{ label: `Retention held, ${code}`, cells: { gross: '', retention: held } }}
    />
  );
}

type ReleaseRow = JobBillingData['releases'][number];

function Releases({ job, releases }: { job: string; releases: readonly ReleaseRow[] }) {
  const [receiving, setReceiving] = useState<string | null>(null);
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.text<ReleaseRow>('reference', 'Reference', (it) => it.reference),
      kinds.day<ReleaseRow>('dated', 'Date', (it) => it.dated),
      kinds.amount<ReleaseRow>('amount', 'Amount', (it) => it.amount),
      kinds.amount<ReleaseRow>('tax', 'Tax', (it) => it.tax),
      kinds.amount<ReleaseRow>('received', 'Received', (it) => it.received),
      kinds.day<ReleaseRow>('dueOn', 'Due date', (it) => it.dueOn),
      kinds.link<ReleaseRow>(
        'posting',
        'Posting',
        (it) => String(it.postingId),
        (it) => `/ledger/postings/${it.postingId}`,
      ),
      {
        key: 'next',
        title: <span className="sr-only">Next</span>,
        cell: (it: ReleaseRow) =>
          it.amount + it.tax !== it.received && (
            <button type="button" className="button bare" onClick={() => setReceiving(it.reference)}>
              Money received
            </button>
          ),
      },
    ],
    [kinds],
  );
  const paying = releases.find((it) => it.reference === receiving);
  return (
    <>
      <h2 className="mb-1 mt-5">Retention released</h2>
      <Table label="Retention released" columns={columns} rows={releases} rowKey={(it) => it.reference} />
      {paying && <ReceiveForm job={job} invoice={paying.reference} open={paying.amount + paying.tax - paying.received} />}
    </>
  );
}

/** Retention that is held, to be invoiced where the client releases it. */
function Release(props: Parameters<typeof ReleaseForm>[0]) {
  const { open, show, button, onKeyDown } = useOpening();
  return open ? (
    <div onKeyDown={onKeyDown}>
      <ReleaseForm {...props} />
    </div>
  ) : (
    <button ref={button} type="button" className="button mt-4" onClick={show}>
      Invoice released retention …
    </button>
  );
}

function StartApplication({ job, data, next }: { job: string; data: JobBillingData; next: number }) {
  const { lastDay } = useAsOf();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const [start, { isLoading, error }] = useStartApplicationMutation();
  const { exact } = useCurrency();
  const { canStart: reason, schedule } = data;
  const go = async (bySchedule: boolean) => {
    const started = await start({ job, body: { dated: lastDay, reference: '', bySchedule } })
      .unwrap()
      .catch(() => null);
    if (started) void navigate(withMonth(`/jobs/${encodeURIComponent(job)}/billing/${started.number}`));
  };
  return (
    <div className="mb-3 flex items-center gap-3">
      <button
        type="button"
        className="button main"
        disabled={reason !== null || isLoading}
        onClick={() => void go(schedule !== null)}
      >
        Start application {next}
      </button>
      {schedule && reason === null && next > 1 && (
        <button type="button" className="button bare" disabled={isLoading} onClick={() => void go(false)}>
          from the previous application
        </button>
      )}
      <span className="note grow">
        {reason ??
          (schedule
            ? `Opens with what the schedule bills by ${displayDate(lastDay)}.`
            : `Opens with the figures of the last one, valuation date ${displayDate(lastDay)}.`)}
      </span>
      {schedule && (
        <span>
          By the schedule{' '}
          <b className="figure">
            <Fig value={schedule.due} of={{ figure: 'scheduleDue', job }} label="Due by the schedule" exact />
          </b>
          , applied for <span className="figure">{exact(schedule.billed)}</span>
        </span>
      )}
      <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/billing/schedule`)}>
        {schedule ? 'Billing schedule' : 'Bill by a fixed schedule …'}
      </Link>
      {error !== undefined && <Refused message={faultOf(error).message} />}
    </div>
  );
}
