import { useMemo, useState } from 'react';
import type { RegisteredChange } from '../../../wire/changes';
import { useChangeRegisterQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { ChangeState, isOpen } from './JobChangesPage';

/** Days after which an open change is marked. */
const LONG_DAYS = 30;

/** Changes of all jobs: how long the open ones wait, what they are worth, and what is spent on them already. */
export function ChangeRegisterPage() {
  const { asOf } = useAsOf();
  const register = useChangeRegisterQuery({ asOf });
  const [all, setAll] = useState(false);
  return (
    <div className="page">
      <PageHead title="Change orders">
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> decided ones too
        </label>
      </PageHead>
      <Loaded of={register} what="the change orders of all jobs">
        {(data) => <Register changes={data} all={all} />}
      </Loaded>
      <p className="note">
        Spent already: cost beyond the revised budget on the lines a change names, at most the cost it expects there. It is
        ordinary cost, and in the estimate; the price is in no contract sum until it is agreed. A clock marks what waits longer
        than {LONG_DAYS} days.
      </p>
    </div>
  );
}

function Register({ changes, all }: { changes: readonly RegisteredChange[]; all: boolean }) {
  const { show } = useCurrency();
  const columns = useRegisterColumns();
  const open = changes.filter(isOpen);
  const shown = all ? changes : open;
  const sum = (of: (it: RegisteredChange) => number) => show(open.reduce((total, it) => total + of(it), 0));
  if (shown.length === 0)
    return <p className="note">{changes.length === 0 ? 'No change orders to date.' : 'No change orders outstanding.'}</p>;
  return (
    <Table
      label="Change orders"
      columns={columns}
      rows={shown}
      rowKey={(it) => `${it.job}/${it.number}`}
      foot={{
        label: 'Not agreed yet: at risk',
        cells: { asked: sum((it) => it.asked), price: '', cost: sum((it) => it.cost), spent: sum((it) => it.spent) },
      }}
    />
  );
}

function useRegisterColumns(): TableColumn<RegisteredChange>[] {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  return useMemo(() => {
    const job = (it: RegisteredChange) => `/jobs/${encodeURIComponent(it.job)}/changes`;
    const agreed = kinds.amount<RegisteredChange>('price', 'Price agreed', (it) => it.price);
    return [
      kinds.link<RegisteredChange>('job', 'Job', (it) => it.job, job),
      kinds.link<RegisteredChange>(
        'change',
        'Change',
        (it) => `${it.number} ${it.title}`,
        (it) => `${job(it)}/${encodeURIComponent(it.number)}`,
      ),
      { ...kinds.text<RegisteredChange>('status', 'State', (it) => it.status), cell: (it) => <ChangeState change={it} /> },
      kinds.day<RegisteredChange>('issued', 'Issued', (it) => it.issuedOn),
      {
        key: 'age',
        title: 'Days outstanding',
        right: true,
        value: (it) => it.age,
        cell: (it) => (
          <>
            {it.age !== null && it.age > LONG_DAYS && <Sign name="overdue" bare />} {it.age ?? ''}
          </>
        ),
      },
      kinds.amount<RegisteredChange>('asked', `Price asked, ${code}`, (it) => it.asked),
      { ...agreed, cell: (it) => (it.status === 'approved' ? show(it.price) : '') },
      kinds.amount<RegisteredChange>('cost', 'Cost expected', (it) => it.cost),
      {
        ...kinds.amount<RegisteredChange>('spent', 'Spent already', (it) => it.spent),
        cell: (it) => <span className={it.spent > 0 ? 'text-[var(--loss)]' : ''}>{show(it.spent)}</span>,
      },
    ];
  }, [kinds, show, code]);
}
