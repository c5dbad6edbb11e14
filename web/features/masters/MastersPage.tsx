import { useState } from 'react';
import { MASTERS, type MasterKind } from '../../../core/masters/masters';
import type { MasterRow } from '../../../wire/masters';
import { useMastersQuery } from '../../ground/api/api';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { PageHead } from '../../kit/PageHead';
import { leaveFor } from '../../kit/unsaved';
import { MasterForm } from './MasterForm';
import { MasterTable } from './MasterTable';
import { PersonalData } from '../../ground/PersonalData';
import { MergeForm } from './MergeForm';

export function ClientsPage() {
  return <MastersPage key="clients" kind="clients" />;
}
export function VendorsPage() {
  return <MastersPage key="vendors" kind="vendors" />;
}
export function CostCodesPage() {
  return <MastersPage key="cost-codes" kind="cost-codes" />;
}

export function JobKindsPage() {
  return <MastersPage key="job-kinds" kind="job-kinds" />;
}
export function DepartmentsPage() {
  return <MastersPage key="departments" kind="departments" />;
}

export function PeoplePage() {
  return <MastersPage key="people" kind="people" />;
}

/** All of a kind; the one that is chosen stands beside them, to be changed, renamed, closed or merged into another. */
function MastersPage({ kind }: { kind: MasterKind }) {
  const { title, one } = MASTERS[kind];
  const masters = useMastersQuery({ kind });
  const [chosen, setChosen] = useState<string | 'new' | null>(null);
  return (
    <div className="page">
      <PageHead title={title}>
        <button type="button" className="button main" onClick={() => leaveFor(() => setChosen('new'))}>
          New {one}
        </button>
      </PageHead>
      <Loaded of={masters} what={title.toLowerCase()}>
        {(rows) => (
          <div className="grid grid-cols-[minmax(0,1fr)_360px] gap-8">
            <MasterTable {...{ kind, rows, chosen }} onChoose={(code) => leaveFor(() => setChosen(code))} />
            <Beside kind={kind} rows={rows} chosen={chosen} onChoose={setChosen} />
          </div>
        )}
      </Loaded>
    </div>
  );
}

interface BesideProps {
  kind: MasterKind;
  rows: readonly MasterRow[];
  chosen: string | null;
  onChoose: (code: string | null) => void;
}

function Beside({ kind, rows, chosen, onChoose }: BesideProps) {
  const { one, coded } = MASTERS[kind];
  const row = rows.find((it) => it.code === chosen) ?? null;
  if (chosen === 'new' && !row)
    return (
      <aside>
        <h2 className="mb-2">New {one}</h2>
        <MasterForm key="new" kind={kind} row={null} onDone={onChoose} />
      </aside>
    );
  if (!row)
    return (
      <p className="note m-0">Choose a {one} to change it, to rename it, to close it to new use, or to merge it into another.</p>
    );
  return (
    <aside>
      <h2 className="mb-2">{coded === 'name' ? [row.code, row.name].filter(Boolean).join(', ') : `${row.code} ${row.name}`}</h2>
      <p className="m-0 mb-2">
        <HistoryLink subject={`${one} ${row.code}`} about="master" />
      </p>
      <MasterForm key={row.seen} kind={kind} row={row} onDone={onChoose} />
      <MergeForm key={`merge ${row.code}`} kind={kind} row={row} rows={rows} onDone={onChoose} />
      {kind === 'people' && (
        <May do="manage-users">
          <PersonalData key={`data ${row.code}`} name={row.code} onDone={onChoose} />
        </May>
      )}
    </aside>
  );
}
