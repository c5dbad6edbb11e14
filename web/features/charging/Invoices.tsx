import { useMemo } from 'react';
import { plural } from '../../../core/names/plural';
import type { DayworkRow } from '../../../wire/charging';
import { addressOf } from '../../ground/addressOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

/** The invoices of charged cost of a job, with what is open of each. */
export function Invoices({ job, rows }: { job: string; rows: readonly DayworkRow[] }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const columns = useMemo(
    (): TableColumn<DayworkRow>[] => [
      kinds.link<DayworkRow>(
        'reference',
        'Invoice',
        (it) => it.reference,
        (it) => addressOf({ place: 'daywork', job, document: it.reference }),
      ),
      kinds.text<DayworkRow>('number', 'Number', (it) => (it.number === null ? 'draft' : String(it.number))),
      kinds.day<DayworkRow>('dated', 'Date', (it) => it.dated),
      kinds.amount<DayworkRow>('amount', 'Before tax', (it) => it.amount, { adds: true }),
      kinds.amount<DayworkRow>('tax', 'Tax', (it) => it.tax, { adds: true }),
      {
        ...kinds.amount<DayworkRow>('credited', 'Credited', (it) => it.credited, { adds: true }),
        cell: (it: DayworkRow) => (
          <>
            {it.creditedInFull && <span className="note">in full </span>}
            {it.credited === 0 ? '–' : exact(it.credited)}
          </>
        ),
      },
      kinds.amount<DayworkRow>('received', 'Received', (it) => it.received, { adds: true }),
      kinds.amount<DayworkRow>('open', 'Outstanding', (it) => it.open, { adds: true }),
      kinds.day<DayworkRow>('dueOn', 'Due date', (it) => it.dueOn),
    ],
    [kinds, exact, job],
  );
  const sum = (value: (it: DayworkRow) => number) => exact(rows.reduce((total, it) => total + value(it), 0));
  const cells = {
    amount: sum((it) => it.amount),
    tax: sum((it) => it.tax),
    credited: sum((it) => it.credited),
    received: sum((it) => it.received),
    open: sum((it) => it.open),
  };
  return (
    <>
      <h2 className="mb-1 mt-6">Invoices of charged cost</h2>
      <Table
        label="Invoices of charged cost"
        columns={columns}
        rows={rows}
        rowKey={(it) => it.reference}
        foot={{ label: plural(rows.length, 'invoice'), cells }}
        dense
      />
    </>
  );
}
