import { displayMoment } from '../../kit/displayMoment';
import { useMemo } from 'react';
import type { PostingRow } from '../../../wire/ledger';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Table } from '../../kit/table/Table';
import type { TableOrder } from '../../kit/table/tableTypes';

/** A page of a list cannot be sorted by what the server does not sort by. */
const UNSORTED = { unsorted: true };

interface DocumentTableProps {
  rows: readonly PostingRow[];
  withJob: boolean;
  order: TableOrder;
}

/** Posted documents as the server sorts them, a page of them: by date, number and amount. */
export function DocumentTable({ rows, withJob, order }: DocumentTableProps) {
  const kinds = useColumnKinds();
  const { code } = useCurrency();
  const columns = useMemo(
    () => [
      kinds.link<PostingRow>(
        'id',
        'Document',
        (it) => String(it.id),
        (it) => `/ledger/postings/${it.id}`,
        { width: 90 },
      ),
      kinds.day<PostingRow>('dated', 'Date', (it) => it.dated),
      {
        ...kinds.text<PostingRow>('kind', 'Kind', (it) => it.kindName, UNSORTED),
        cell: (it: PostingRow) => <Kind it={it} />,
      },
      ...(withJob ? [kinds.text<PostingRow>('job', 'Job', (it) => it.job ?? '', UNSORTED)] : []),
      kinds.text<PostingRow>('reference', 'Reference', (it) => it.reference, UNSORTED),
      kinds.amount<PostingRow>('total', `Debits, ${code}`, (it) => it.total),
      kinds.text<PostingRow>('actor', 'Recorded by', (it) => it.actor, UNSORTED),
      {
        ...kinds.text<PostingRow>('recorded', 'Recorded', (it) => it.recordedAt, UNSORTED),
        cell: (it: PostingRow) => <span className="note">{displayMoment(it.recordedAt)}</span>,
      },
    ],
    [kinds, code, withJob],
  );
  return (
    <Table
      label="Posted documents"
      columns={columns}
      rows={rows}
      rowKey={(it) => String(it.id)}
      empty="No matching documents to date"
      unsearched
      order={order}
    />
  );
}

function Kind({ it }: { it: PostingRow }) {
  return (
    <>
      {it.kindName}
      {it.reversedBy && <span className="note"> · reversed by {it.reversedBy}</span>}
      {it.reverses && <span className="note"> of {it.reverses}</span>}
    </>
  );
}
