import { whyNotTaken } from '../../../core/jobs/takes';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { ChangeSummary } from '../../../wire/changes';
import { useJobChangesQuery, useJobQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';

/** The changes of a job: what they ask for, what was agreed, and what waits. */
export function JobChangesPage() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const changes = useJobChangesQuery({ job, asOf });
  const { data: of } = useJobQuery({ job, asOf });
  const withMonth = useWithMonth();
  const base = `/jobs/${encodeURIComponent(job)}/changes`;
  return (
    <>
      <div className="mb-2 flex items-end justify-between">
        <h2>Change orders</h2>
        {of && whyNoChange(of) ? (
          <span className="note">{whyNoChange(of)}</span>
        ) : (
          <May do="change-orders">
            <Link className="button main" to={withMonth(`${base}/new`)}>
              Raise a change
            </Link>
          </May>
        )}
      </div>
      <Loaded of={changes} what="the change orders">
        {(data) => <Changes changes={data} base={base} />}
      </Loaded>
    </>
  );
}

/** Why the contract of a job does not change any more; null where it can. */
function whyNoChange({ locked, status }: { locked: boolean; status: string }): string | null {
  const why = whyNotTaken({ locked, status }, 'changes');
  return why && `The job ${why}.`;
}

function Changes({ changes, base }: { changes: readonly ChangeSummary[]; base: string }) {
  const { show } = useCurrency();
  const columns = useChangeColumns(base);
  const totals = (label: string, list: readonly ChangeSummary[]) => {
    const sum = (of: (it: ChangeSummary) => number) => show(list.reduce((total, it) => total + of(it), 0));
    return {
      label,
      cells: {
        asked: sum((it) => it.asked),
        price: sum((it) => it.price),
        cost: sum((it) => it.cost),
        margin: sum((it) => it.price - it.cost),
      },
    };
  };
  const open = changes.filter(isOpen);
  const approved = changes.filter((it) => it.status === 'approved');
  if (changes.length === 0) return <p className="note">No change orders to date.</p>;
  return (
    <Table
      label="Change orders"
      columns={columns}
      rows={changes}
      rowKey={(it) => it.number}
      foot={[
        totals('Approved, in the contract sum', approved),
        ...(open.length > 0 ? [totals('Not agreed yet, in no contract sum', open)] : []),
      ]}
    />
  );
}

function useChangeColumns(base: string) {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  return useMemo(
    () => [
      kinds.link<ChangeSummary>(
        'change',
        'Change',
        (it) => `${it.number} ${it.title}`,
        (it) => `${base}/${encodeURIComponent(it.number)}`,
      ),
      {
        ...kinds.text<ChangeSummary>('status', 'State', (it) => it.status),
        cell: (it: ChangeSummary) => <ChangeState change={it} />,
      },
      kinds.day<ChangeSummary>('raised', 'Raised', (it) => it.raisedOn),
      kinds.day<ChangeSummary>('decided', 'Decided', (it) => it.decidedOn),
      {
        key: 'days',
        title: 'Days',
        right: true,
        value: (it: ChangeSummary) => it.daysGranted ?? it.daysAsked,
        cell: (it: ChangeSummary) => it.daysGranted ?? it.daysAsked ?? '–',
      },
      {
        ...kinds.amount<ChangeSummary>('asked', 'Asked for', (it) => it.asked),
        cell: (it: ChangeSummary) => <span className="note">{show(it.asked)}</span>,
      },
      kinds.amount<ChangeSummary>('price', `Price, ${code}`, (it) => it.price),
      kinds.amount<ChangeSummary>('cost', 'Cost', (it) => it.cost),
      kinds.amount<ChangeSummary>('margin', 'Price less cost', (it) => it.price - it.cost),
    ],
    [kinds, show, code, base],
  );
}

export function isOpen(it: Pick<ChangeSummary, 'status'>): boolean {
  return it.status === 'draft' || it.status === 'issued';
}

/** The state in a word, with the sign of what is not agreed yet. */
export function ChangeState({ change }: { change: Pick<ChangeSummary, 'status'> }) {
  return isOpen(change) ? (
    <span className="inline-flex gap-2">
      <Sign name="pending" bare />
      {change.status}
    </span>
  ) : (
    <>{change.status}</>
  );
}
