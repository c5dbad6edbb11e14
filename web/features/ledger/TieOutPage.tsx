import { useMemo } from 'react';
import type { ReportReply } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Table } from '../../kit/table/Table';

const WORDS: Record<string, readonly [string, string, string]> = {
  'job-cost': ['Job cost', 'all cost entries', 'the job cost accounts'],
  'accounts-receivable': ['Accounts receivable', 'unpaid applications and releases', 'accounts receivable'],
  'retention-receivable': ['Retention receivable', 'retention held on every job', 'retention receivable'],
  'accounts-payable': ['Accounts payable', 'unpaid vendor bills', 'accounts payable'],
  journals: ['Journals balance', 'all debits to date', 'all credits to date'],
};

type Row = ReportReply['rows'][number];

/** The proofs that what the postings say and what the accounts say agree. */
export function TieOutPage() {
  const { asOf } = useAsOf();
  const report = useReportQuery({ name: 'tie-out', asOf });
  const { code } = useCurrency();
  return (
    <div className="page max-w-[1000px]">
      <PageHead title="Tie-out" />
      <Loaded of={report} what="both sides of the books">
        {(data) => <Proofs rows={data.rows} />}
      </Loaded>
      <p className="note">
        Amounts in {code}. Both sides are recalculated from their own tables each time this page is read. This version posts no
        vendor bills, so accounts payable is zero.
      </p>
    </div>
  );
}

function Proofs({ rows }: { rows: readonly Row[] }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const columns = useMemo(
    () => [
      { key: 'check', title: 'Proof', cell: (row: Row) => <Proof name={String(row.check)} /> },
      kinds.amount<Row>('subledger', 'Subledger', (row) => Number(row.subledger)),
      kinds.amount<Row>('ledger', 'General ledger', (row) => Number(row.ledger)),
      {
        ...kinds.amount<Row>('difference', 'Difference', (row) => Number(row.difference)),
        cell: (row: Row) => (
          <b className={row.difference === 0 ? 'text-[var(--good)]' : 'text-[var(--loss)]'}>
            {row.difference === 0 ? 'ties' : exact(Number(row.difference))}
          </b>
        ),
      },
    ],
    [kinds, exact],
  );
  const broken = rows.filter((row) => row.difference !== 0).length;
  return (
    <>
      <p className={`verdict ${broken ? 'text-[var(--loss)]' : 'text-[var(--good)]'}`}>
        {broken
          ? `${broken} of ${rows.length} reconciliations do not agree. Tell whoever looks after Ledrin; post nothing until they do.`
          : `All ${rows.length} reconciliations agree.`}
      </p>
      <Table label="Tie-out" columns={columns} rows={rows} rowKey={(row) => String(row.check)} className="tall" />
    </>
  );
}

function Proof({ name }: { name: string }) {
  const [title, postings, accounts] = WORDS[name] ?? [name, '', ''];
  return (
    <>
      {title}
      <br />
      <span className="note text-[12.5px]">
        {postings} against {accounts}
      </span>
    </>
  );
}
