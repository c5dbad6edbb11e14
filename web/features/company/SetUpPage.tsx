import { May } from '../../ground/person';
import { useAddCostCodesMutation, useListsQuery, useSessionQuery } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import { Link } from 'react-router';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridRow } from '../../kit/grid/gridTypes';
import { Refused, Waiting } from '../../kit/States';
import { useUnsaved } from '../../kit/unsaved';
import { BookImport } from './BookImport';
import { ClosedBooks } from './ClosedBooks';
import { Logo } from './Logo';
import { CompanyForm } from './CompanyForm';

/** The company, its cost codes, and the book in and out. */
export function SetUpPage() {
  const { asOf } = useAsOf();
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf });
  if (!session || !lists) return <Waiting what="the set-up" />;
  return (
    <div className="page">
      <h1 className="mb-4">Set-up</h1>
      <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-10">
        <div className="flex flex-col gap-8">
          <section>
            <h2 className="mb-2">Company</h2>
            <CompanyForm company={session.company} verb="Save" onSaved={() => toast('Saved')} />
            {session.company && <Logo />}
          </section>
          <May do="read-books">
            <ClosedBooks />
          </May>
          <section>
            <h2 className="mb-2">Import and export</h2>
            <p className="note mb-3 mt-0">
              The whole company as open CSV files, with attachments and messages: to bring jobs over, to hand a year to an
              auditor, to move to another machine. Not exported: up to which day the books are closed, reversal links and the
              audit trail. An import adds to what is here, all of it or nothing.
            </p>
            <div className="flex flex-wrap items-start gap-3">
              <May do="export:exportBook">
                <a className="button" href={hrefOf(CALLS.exportBook, {})} download>
                  Export company, ZIP
                </a>
              </May>
              <May do="import-books">
                <BookImport />
              </May>
            </div>
          </section>
        </div>
        <CostCodes codes={lists.costCodes} />
      </div>
    </div>
  );
}

function CostCodes({ codes }: { codes: readonly { code: string; description: string; unit: string }[] }) {
  const withMonth = useWithMonth();
  const [rows, setRows] = useState<GridRow[]>([]);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [save, { isLoading }] = useAddCostCodesMutation();
  const faults = useMemo(() => {
    const shown = new Map<string, string>();
    rows.forEach((row, i) => {
      if (row.code && codes.some((it) => it.code === row.code)) shown.set(`${i}.code`, `${row.code} is already there`);
    });
    for (const fault of refused?.faults ?? []) shown.set(fault.field.replace(/^codes\./, ''), fault.message);
    return shown;
  }, [rows, codes, refused]);
  const filled = rows.filter((row) => row.code || row.description);
  // What is on its way is not asked about.
  useUnsaved(filled.length > 0 && !isLoading);
  const add = async () => {
    try {
      await save({
        body: {
          codes: filled.map((row) => ({ code: row.code ?? '', description: row.description ?? '', unit: row.unit ?? '' })),
        },
      }).unwrap();
      toast(`${filled.length} cost ${filled.length === 1 ? 'code' : 'codes'} added`);
      setRows([]);
      setRefused(null);
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return (
    <section>
      <h2 className="mb-2">New cost codes</h2>
      <p className="note mb-3 mt-0">
        Typed or pasted, many at once.{' '}
        <Link to={withMonth('/set-up/cost-codes')}>Change, close or merge those that are there</Link>
      </p>
      <EntryGrid
        label="New cost codes"
        columns={[
          { key: 'code', title: 'New code', width: 100 },
          { key: 'description', title: 'Description', width: 'auto' },
          { key: 'unit', title: 'Unit', width: 70 },
        ]}
        rows={rows}
        onRows={(next) => {
          setRows(next);
          setRefused(null);
        }}
        faults={faults}
        height={200}
      />
      <p className="my-2">
        <button type="button" className="button" disabled={filled.length === 0 || isLoading} onClick={() => void add()}>
          Add {filled.length || ''} cost {filled.length === 1 ? 'code' : 'codes'}
        </button>
      </p>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
