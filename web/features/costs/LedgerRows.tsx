import { SortHead } from '../../kit/table/SortHead';
import { api, useCostPageQuery, useCostTotalsQuery } from '../../ground/api/api';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import type { CostPage, CostRow } from '../../../wire/costs';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import type { AppDispatch } from '../../ground/api/store';
import { Refused, Waiting } from '../../kit/States';
import type { LedgerParams } from '../../../wire/costs';
import { useSetParam } from './ledgerParams';

const PAGE = 200;

const ROW = 29;

/** Fetches the pages that come into view and holds them: on from the page before where that is there, else by its place. */
function usePages(
  filter: LedgerParams,
  first: CostPage | undefined,
  count: number,
  from: number,
  to: number,
): (index: number) => CostRow | undefined {
  const dispatch = useDispatch<AppDispatch>();
  const [pages, setPages] = useState<ReadonlyMap<number, CostPage>>(new Map());
  const asked = useRef(new Set<number>());
  useEffect(() => {
    for (let page = Math.max(1, Math.floor(from / PAGE)); page <= Math.floor(Math.min(to, count - 1) / PAGE); page++) {
      if (asked.current.has(page)) continue;
      asked.current.add(page);
      const after = page === 1 ? first?.next : pages.get(page - 1)?.next;
      const place = after ? { after } : { offset: String(page * PAGE) };
      const request = dispatch(
        api.endpoints.costPage.initiate({ ...filter, ...place, limit: String(PAGE) }, { subscribe: false }),
      );
      void request.unwrap().then(
        (reply) => setPages((before) => new Map(before).set(page, reply)),
        () => asked.current.delete(page),
      );
    }
  }, [filter, first, pages, from, to, count, dispatch]);
  return (index) => (index < PAGE ? first?.rows[index] : pages.get(Math.floor(index / PAGE))?.rows[index % PAGE]);
}

export function LedgerRows({ filter, showJob }: { filter: LedgerParams; showJob: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const { data: first, error, refetch } = useCostPageQuery({ ...filter, limit: String(PAGE) });
  const { data, error: uncounted, refetch: count } = useCostTotalsQuery(filter);
  const virtual = useVirtualizer({
    count: data?.count ?? 0,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
    initialRect: { width: 1000, height: 700 },
  });
  const items = virtual.getVirtualItems();
  const rowAt = usePages(filter, first, data?.count ?? 0, items[0]?.index ?? 0, items.at(-1)?.index ?? 0);
  const { exact } = useCurrency();
  const failed = error ?? uncounted;
  if (failed) return <Refused message={faultOf(failed).message} onRetry={() => void (error ? refetch() : count())} />;
  if (!data || !first) return <Waiting what="the cost ledger" />;
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={box} className="scroll ledger-window" tabIndex={0} role="region" aria-label="Cost entries">
      <table className="ledger even" aria-rowcount={data.count}>
        <LedgerHead filter={filter} showJob={showJob} />
        <tbody>
          {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
          {items.map(({ index }) => (
            <EntryRow key={index} row={rowAt(index)} showJob={showJob} />
          ))}
          {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
          {data.count === 0 && (
            <tr>
              <td colSpan={12} className="note">
                No matching entries to date.
              </td>
            </tr>
          )}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={showJob ? 9 : 8}>
              {data.count.toLocaleString('en-GB')} {data.count === 1 ? 'entry' : 'entries'}
            </td>
            <td className="num">{displayQuantity(data.hours)}</td>
            <td className="num">{exact(data.amount)}</td>
            <td />
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

/** The columns of the ledger; the server sorts by those that name how. */
const COLUMNS = [
  { title: 'Date', width: 94, sort: 'dated' },
  { title: 'Job', width: 64, sort: 'job' },
  { title: 'Section', width: 130 },
  { title: 'Code', width: 60, sort: 'cost-code' },
  { title: 'Type', width: 90 },
  { title: 'Reference', width: 116 },
  { title: 'Supplier / payee', width: 130, sort: 'party' },
  { title: 'Description' },
  { title: 'Order', width: 112 },
  { title: 'Hours', width: 74, numeric: true },
  { title: 'Amount', width: 118, sort: 'amount', numeric: true },
  { title: 'Posting', width: 62 },
] as const satisfies readonly { title: string; width?: number; sort?: string; numeric?: boolean }[];
type Column = { title: string; width?: number; sort?: string; numeric?: boolean };

function LedgerHead({ filter, showJob }: { filter: LedgerParams; showJob: boolean }) {
  const columns: readonly Column[] = COLUMNS;
  return (
    <thead>
      <tr>
        {columns
          .filter(({ sort }) => showJob || sort !== 'job')
          .map((column) => (
            <LedgerHeadCell key={column.title} filter={filter} {...column} />
          ))}
      </tr>
    </thead>
  );
}

function LedgerHeadCell({ filter, title, width, sort, numeric = false }: Column & { filter: LedgerParams }) {
  const set = useSetParam();
  const active = (filter.sort ?? 'dated') === sort;
  const down = filter.descending === 'yes';
  return (
    <SortHead
      width={width}
      className={numeric ? 'num' : ''}
      way={active ? (down ? 'down' : 'up') : null}
      onSort={sort === undefined ? undefined : () => set({ sort, down: active && !down ? 'yes' : '' })}
    >
      {title}
    </SortHead>
  );
}

/** A document's reference, with its own date where it was posted on another. */
function referenceOf({ reference, dated, postedOn }: CostRow): string {
  return dated === postedOn ? reference : `${reference}, dated ${displayDate(dated)}`;
}

function EntryRow({ row, showJob }: { row: CostRow | undefined; showJob: boolean }) {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  if (!row)
    return (
      <tr>
        <td colSpan={showJob ? 12 : 11} className="note">
          …
        </td>
      </tr>
    );
  return (
    <tr>
      <td>{displayDate(row.postedOn)}</td>
      {showJob && (
        <td>
          <Link to={keep(`/jobs/${encodeURIComponent(row.job)}/costs`)}>{row.job}</Link>
        </td>
      )}
      <td className="truncate" title={row.section}>
        {row.section}
      </td>
      <td>{row.costCode}</td>
      <td>{row.costType}</td>
      <td className="truncate" title={referenceOf(row)}>
        {referenceOf(row)}
      </td>
      <td className="truncate" title={row.party}>
        {row.party}
      </td>
      <td className="truncate" title={row.description}>
        {row.description}
        {row.uninstalled && (
          <span className="note"> · {row.installedOn ? `installed ${displayDate(row.installedOn)}` : 'not installed yet'}</span>
        )}
      </td>
      <td className="truncate">{row.commitment}</td>
      <td className="num">{row.hours === null ? '' : displayQuantity(row.hours)}</td>
      <td className="num">{show(row.amount)}</td>
      <td>
        <Link to={keep(`/ledger/postings/${row.postingId}`)}>{row.postingId}</Link>
      </td>
    </tr>
  );
}
