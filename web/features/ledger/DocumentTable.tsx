import { displayMoment } from '../../kit/displayMoment';
import { useMemo } from 'react';
import type { PostingRow } from '../../../wire/ledger';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Table } from '../../kit/table/Table';

/** Posted documents as the server sorts them, a page of them. */
export function DocumentTable({ rows, withJob }: { rows: readonly PostingRow[]; withJob: boolean }) {
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
      { ...kinds.text<PostingRow>('kind', 'Kind', (it) => it.kindName), cell: (it: PostingRow) => <Kind it={it} /> },
      ...(withJob ? [kinds.text<PostingRow>('job', 'Job', (it) => it.job ?? '')] : []),
      kinds.text<PostingRow>('reference', 'Reference', (it) => it.reference),
      kinds.amount<PostingRow>('total', `Debits, ${code}`, (it) => it.total),
      kinds.text<PostingRow>('actor', 'Recorded by', (it) => it.actor),
      {
        ...kinds.text<PostingRow>('recorded', 'Recorded', (it) => it.recordedAt),
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
