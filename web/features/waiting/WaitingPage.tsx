import { useMemo } from 'react';
import { WAITING } from '../../../core/waiting/waiting';
import type { WaitingRow } from '../../../wire/waiting';
import { addressOf } from '../../ground/addressOf';
import { useWaitingQuery } from '../../ground/api/api';
import { useColumnKinds } from '../../ground/columnKinds';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';

/** All that waits for whoever is signed in, over all kinds of documents, the oldest first. */
export function WaitingPage() {
  const waiting = useWaitingQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <div className="page">
      <PageHead title="Waiting for you" />
      <Loaded of={waiting} what="what waits for you">
        {(rows) => (rows.length === 0 ? <Empty title="Nothing waits for you" /> : <Rows rows={rows} />)}
      </Loaded>
    </div>
  );
}

function Rows({ rows }: { rows: readonly WaitingRow[] }) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.link<WaitingRow>(
        'document',
        'Document',
        (it) => WAITING[it.kind].named(it),
        (it) => addressOf(WAITING[it.kind].to(it)),
      ),
      kinds.text<WaitingRow>('todo', 'To do', (it) => WAITING[it.kind].todo[0].replace(/^.* to /, '')),
      kinds.text<WaitingRow>('job', 'Job or people', (it) =>
        it.job === '' && it.jobName === '' ? (it.about ?? '') : `${it.job} ${it.jobName}`,
      ),
      kinds.day<WaitingRow>('since', 'Since', (it) => it.since),
    ],
    [kinds],
  );
  return (
    <Table
      label="Waiting for you"
      columns={columns}
      rows={rows}
      rowKey={(it) => `${it.kind} ${it.job} ${it.document} ${it.since}`}
      sorted={{ key: 'since', descending: false }}
      height="window"
    />
  );
}
