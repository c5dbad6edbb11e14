import { useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { displayDate } from '../../../../core/calendar/displayDate';
import { displayQuantity } from '../../../../core/money/display';
import type { InstallationRow, UninstalledRow } from '../../../../wire/corrections';
import { useUndoInstallationMutation, useUninstalledQuery } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import { useColumnKinds } from '../../../ground/columnKinds';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { May, useMay } from '../../../ground/person';
import { useVendorNames } from '../../../ground/partyNames';
import { useAttempt } from '../../../ground/useAttempt';
import { useStanding } from '../../../ground/useStanding';
import { PageHead } from '../../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../../kit/States';
import { Table } from '../../../kit/table/Table';
import { InstallForm } from './InstallForm';

/** What lies on site and is not installed yet, over all jobs. */
export function MaterialOnSitePage() {
  return (
    <div className="page">
      <PageHead title="Material on site, not installed" />
      <MaterialOnSite />
    </div>
  );
}

/** The same of one job, as a part of its page. */
export function JobMaterialOnSite() {
  const { number } = useParams();
  return (
    <>
      <h2 className="mb-2">Material on site, not installed</h2>
      <MaterialOnSite job={number} />
    </>
  );
}

function MaterialOnSite({ job }: { job?: string }) {
  const { asOf } = useAsOf();
  const [params] = useSearchParams();
  const { data, error, refetch } = useStanding(useUninstalledQuery({ asOf, ...(job === undefined ? {} : { job }) }));
  const asked = useMemo(() => new Set((params.get('entries') ?? '').split(',').filter(Boolean).map(Number)), [params]);
  const [picked, setPicked] = useState<ReadonlySet<number>>(asked);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const toggle = (rows: readonly UninstalledRow[]) =>
    setPicked((before) => {
      const open = rows.filter((it) => it.open !== 0).map((it) => it.entry);
      const all = open.every((it) => before.has(it));
      return new Set(all ? [...before].filter((it) => !open.includes(it)) : [...before, ...open]);
    });
  const { exact } = useCurrency();
  const may = useMay();
  const every = useColumns(picked, toggle);
  const columns = may('correct-costs') ? every : every.filter(({ key }) => key !== 'pick');
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the material on site" />;
  const chosen = data.rows.filter((it) => picked.has(it.entry));
  const sum = (rows: readonly UninstalledRow[]) => ({ left: exact(rows.reduce((total, it) => total + it.left, 0)) });
  return (
    <>
      {data.rows.length === 0 ? (
        <Empty title="Nothing lies uninstalled">
          <p className="note">Cost entered as “On site, not installed” stands here until it is installed.</p>
        </Empty>
      ) : (
        <>
          <May do="correct-costs">
            <InstallForm rows={chosen} onDone={() => setPicked(new Set())} />
          </May>
          <Table
            label="Material on site, not installed"
            columns={columns}
            rows={data.rows}
            rowKey={(it) => String(it.entry)}
            onPick={may('correct-costs') ? toggle : undefined}
            isCurrent={(it) => picked.has(it.entry)}
            groups={
              job === undefined
                ? {
                    of: (it) => `${it.job} ${it.jobName}`,
                    sums: sum,
                    folded,
                    onFold: (group) =>
                      setFolded(
                        (before) => new Set(before.has(group) ? [...before].filter((it) => it !== group) : [...before, group]),
                      ),
                  }
                : undefined
            }
            foot={{ label: `${data.rows.length} ${data.rows.length === 1 ? 'entry' : 'entries'}`, cells: sum(data.rows) }}
          />
        </>
      )}
      <Installed rows={data.installations} />
    </>
  );
}

function useColumns(picked: ReadonlySet<number>, toggle: (rows: readonly UninstalledRow[]) => void) {
  const kinds = useColumnKinds();
  const nameOf = useVendorNames();
  return useMemo(
    () => [
      {
        key: 'pick',
        title: <span className="sr-only">Picked</span>,
        label: 'Picked',
        width: 26,
        cell: (it: UninstalledRow) =>
          it.open !== 0 && (
            <input
              type="checkbox"
              tabIndex={-1}
              aria-label={`Pick ${it.reference}, ${it.costCode}`}
              checked={picked.has(it.entry)}
              onChange={() => toggle([it])}
            />
          ),
      },
      kinds.day<UninstalledRow>('posted', 'Delivered on', (it) => it.postedOn),
      kinds.count<UninstalledRow>('age', 'Days', (it) => it.age),
      kinds.text<UninstalledRow>('section', 'Section', (it) => it.section),
      kinds.text<UninstalledRow>('code', 'Cost code', (it) => `${it.costCode} ${it.codeName}`),
      kinds.text<UninstalledRow>('party', 'Supplier', (it) => nameOf(it.party)),
      kinds.text<UninstalledRow>('reference', 'Reference', (it) => it.reference),
      kinds.text<UninstalledRow>('description', 'Description', (it) => it.description),
      kinds.amount<UninstalledRow>('amount', 'Delivered', (it) => it.amount),
      kinds.amount<UninstalledRow>('installed', 'Installed', (it) => it.amount - it.left),
      {
        ...kinds.text<UninstalledRow>('quantity', 'Quantity', (it) => quantityText(it)),
        right: true,
      },
      kinds.amount<UninstalledRow>('left', 'Not installed', (it) => it.left),
    ],
    [kinds, picked, toggle, nameOf],
  );
}

function quantityText({ quantity, unit }: UninstalledRow): string {
  return quantity === null ? '' : `${displayQuantity(quantity)} ${unit}`.trim();
}

/** What was installed, each with the way to undo it. */
function Installed({ rows }: { rows: readonly InstallationRow[] }) {
  const kinds = useColumnKinds();
  const nameOf = useVendorNames();
  const { exact } = useCurrency();
  const { refused, attempt } = useAttempt();
  const may = useMay();
  const [undo, { isLoading }] = useUndoInstallationMutation();
  const columns = useMemo(
    () => [
      kinds.day<InstallationRow>('installed', 'Installed', (it) => it.installedOn),
      kinds.text<InstallationRow>('job', 'Job', (it) => it.job),
      kinds.text<InstallationRow>('code', 'Cost code', (it) => it.costCode),
      kinds.text<InstallationRow>('party', 'Supplier', (it) => nameOf(it.party)),
      kinds.text<InstallationRow>('reference', 'Reference', (it) => it.reference),
      kinds.text<InstallationRow>('description', 'Description', (it) => it.description),
      kinds.amount<InstallationRow>('amount', 'Amount', (it) => it.amount),
      {
        key: 'undo',
        title: <span className="sr-only">Undo</span>,
        label: 'Undo',
        width: 70,
        cell: (it: InstallationRow) => (
          <button
            type="button"
            className="button bare"
            disabled={isLoading}
            onClick={() => void attempt(() => undo({ id: it.id }).unwrap(), `${exact(it.amount)} lies uninstalled again`)}
          >
            Undo
          </button>
        ),
      },
    ],
    [kinds, nameOf, exact, isLoading, attempt, undo],
  );
  if (rows.length === 0) return null;
  return (
    <>
      <h2 className="mb-1 mt-6">Installed to {displayDate(rows[0]?.installedOn ?? null)}</h2>
      {refused && <Refused message={refused.message} />}
      <Table
        label="Installed"
        columns={may('correct-costs') ? columns : columns.filter(({ key }) => key !== 'undo')}
        rows={rows}
        rowKey={(it) => String(it.id)}
      />
    </>
  );
}
