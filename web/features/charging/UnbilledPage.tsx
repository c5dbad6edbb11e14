import { useMemo, useState } from 'react';
import { CEILING_WARNING, isNearCeiling } from '../../../core/charging/ceiling';
import { daysBetween } from '../../../core/calendar/plainDate';
import { plural } from '../../../core/names/plural';
import type { UnbilledJob } from '../../../wire/charging';
import { useUnbilledQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { useMay } from '../../ground/person';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { toggled } from '../../kit/table/toggled';
import { DayworkRun } from './DayworkRun';

/** What is charged and on no invoice yet, over all jobs: by client and job, with its age; from here it is invoiced. */
export function UnbilledPage() {
  const { asOf } = useAsOf();
  const unbilled = useUnbilledQuery({ asOf });
  const { code } = useCurrency();
  return (
    <div className="page">
      <PageHead title="Unbilled">
        <span className="note text-[12.5px]">Charged cost that is on no invoice. Amounts before tax, in {code}</span>
      </PageHead>
      <Loaded of={unbilled} what="what is charged">
        {(jobs) =>
          jobs.length === 0 ? (
            <Empty title="Nothing is charged that is not invoiced">
              <p className="note m-0">
                Mark cost as charged where it is entered, in costs or on a week sheet, or later on its job under Charged. On a
                charged job all cost is charged unless it says otherwise.
              </p>
            </Empty>
          ) : (
            <Jobs jobs={jobs} />
          )
        }
      </Loaded>
    </div>
  );
}

const isReady = (it: UnbilledJob) => it.entries > 0 && it.why === null;

function Jobs({ jobs }: { jobs: readonly UnbilledJob[] }) {
  const { asOf, lastDay } = useAsOf();
  const { exact } = useCurrency();
  const kinds = useColumnKinds();
  const may = useMay();
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const invoices = may('certify');
  const taken = jobs.filter((it) => isReady(it) && !without.has(it.job));
  const columns = useMemo(
    (): TableColumn<UnbilledJob>[] => [
      ...(invoices
        ? [
            {
              key: 'take',
              title: <span className="sr-only">Invoiced now</span>,
              label: 'Invoiced now',
              width: 30,
              cell: (it: UnbilledJob) =>
                isReady(it) && (
                  <input
                    type="checkbox"
                    aria-label={`Invoice job ${it.job} now`}
                    checked={!without.has(it.job)}
                    onChange={() => setWithout(toggled(without, it.job))}
                  />
                ),
            },
          ]
        : []),
      kinds.link<UnbilledJob>(
        'job',
        'Job',
        (it) => `${it.job} ${it.jobName}`,
        (it) => addressOf({ place: 'charging', job: it.job }),
      ),
      kinds.count<UnbilledJob>('entries', 'Entries', (it) => it.entries),
      kinds.amount<UnbilledJob>('cost', 'Cost', (it) => it.cost, { adds: true }),
      kinds.amount<UnbilledJob>('charge', 'To charge', (it) => it.charge, {
        adds: true,
        cell: (it) => <b>{exact(it.charge)}</b>,
      }),
      kinds.amount<UnbilledJob>('margin', 'Margin', (it) => it.charge - it.cost, { adds: true }),
      kinds.amount<UnbilledJob>('held', 'Held', (it) => it.heldCharge, { adds: true }),
      {
        key: 'age',
        title: 'Oldest, days',
        value: (it) => (it.oldest === null ? null : daysBetween(it.oldest, lastDay)),
        number: String,
        cell: (it) => (it.oldest === null ? '' : String(Math.max(0, daysBetween(it.oldest, lastDay)))),
      },
      ...(jobs.some((it) => it.ceiling !== null)
        ? [
            {
              key: 'ceiling',
              title: 'Ceiling',
              value: (it: UnbilledJob) => it.ceiling,
              number: exact,
              cell: (it: UnbilledJob) => <Ceiling job={it} />,
            },
          ]
        : []),
      ...(jobs.some((it) => it.why !== null)
        ? [
            {
              key: 'why',
              title: 'Not ready',
              value: (it: UnbilledJob) => it.why,
              cell: (it: UnbilledJob) => it.why && <span className="note">{it.why}</span>,
            },
          ]
        : []),
    ],
    [kinds, exact, invoices, without, lastDay, jobs],
  );
  const sums = (rows: readonly UnbilledJob[]) => {
    const sum = (value: (it: UnbilledJob) => number) => exact(rows.reduce((total, it) => total + value(it), 0));
    return {
      cost: sum((it) => it.cost),
      charge: sum((it) => it.charge),
      margin: sum((it) => it.charge - it.cost),
      held: sum((it) => it.heldCharge),
    };
  };
  return (
    <>
      <Table
        label="Unbilled by client and job"
        columns={columns}
        rows={jobs}
        rowKey={(it) => it.job}
        onPick={(rows) => setWithout(rows.reduce((set, it) => toggled(set, it.job), without))}
        groups={{
          of: (it) => it.clientName,
          sums,
          folded,
          onFold: (client) => setFolded(toggled(folded, client)),
        }}
        foot={{ label: plural(jobs.length, 'job'), cells: sums(jobs) }}
        dense
      />
      {invoices && (
        <DayworkRun
          key={asOf}
          what={`${plural(taken.length, 'invoice')}, ${exact(taken.reduce((sum, it) => sum + it.charge, 0))}`}
          invoices={taken.map((it) => ({ job: it.job, entries: null }))}
          onIssued={() => setWithout(new Set())}
        />
      )}
    </>
  );
}

/** What is left under the ceiling of a charged job, warned of from 80 % on. */
export function Ceiling({ job: { ceiling, charged } }: { job: Pick<UnbilledJob, 'ceiling' | 'charged'> }) {
  const { exact } = useCurrency();
  if (ceiling === null) return null;
  const isNear = isNearCeiling(charged, ceiling, CEILING_WARNING);
  const share = Math.round((100 * charged) / ceiling);
  return (
    <span className={isNear ? 'text-[var(--over)]' : ''} title={`${exact(charged)} of ${exact(ceiling)} is charged`}>
      {exact(ceiling)}
      {isNear && ` · ${share} % charged`}
    </span>
  );
}
