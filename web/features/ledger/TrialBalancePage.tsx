import { useMemo } from 'react';
import { at } from '../../../core/errors/known';
import type { ReportReply } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { ReportHead } from '../../ground/reports/ReportHead';
import { Table } from '../../kit/table/Table';

type Row = ReportReply['rows'][number];

/** Every account with its balance. */
export function TrialBalancePage() {
  const { asOf } = useAsOf();
  const report = useReportQuery({ name: 'trial-balance', asOf });
  return (
    <div className="page max-w-[900px]">
      <ReportHead title="Trial balance" name="trial-balance" />
      <Loaded of={report} what="the ledger">
        {(data) => <Balances data={data} />}
      </Loaded>
    </div>
  );
}

function Balances({ data }: { data: ReportReply }) {
  const { show, code } = useCurrency();
  const kinds = useColumnKinds();
  const columns = useMemo(() => {
    const side = (key: 'debit' | 'credit', title: string) => ({
      ...kinds.amount<Row>(key, title, (row) => Number(row[key])),
      cell: (row: Row) => (row[key] ? show(Number(row[key])) : ''),
    });
    return [
      kinds.text<Row>('account', 'Account', (row) => String(row.account), { width: 90 }),
      kinds.text<Row>('name', 'Name', (row) => String(row.name)),
      side('debit', 'Debit'),
      side('credit', 'Credit'),
    ];
  }, [kinds, show]);
  const total = at(data.rows, -1);
  if (data.rows.length === 1) return <p>No postings to date.</p>;
  return (
    <Table
      label="Trial balance"
      columns={columns}
      rows={data.rows.slice(0, -1)}
      rowKey={(row) => String(row.account)}
      foot={{ label: `Total, ${code}`, cells: { debit: show(Number(total.debit)), credit: show(Number(total.credit)) } }}
    />
  );
}
