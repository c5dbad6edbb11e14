import { api, useCostPageQuery, useCostTotalsQuery } from '../../ground/api/api';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { formatScaled } from '../../../core/money/decimal';
import { displayQuantity } from '../../../core/money/display';
import { UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import type { CostPage, CostRow, LedgerParams } from '../../../wire/costs';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useVendorNames } from '../../ground/partyNames';
import { useMay } from '../../ground/person';
import type { AppDispatch } from '../../ground/api/store';
import { Refused, Waiting } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { ManyRows, TableColumn } from '../../kit/table/tableTypes';
import { pickColumn } from './corrections/pickColumn';
import type { Picks } from './corrections/usePicks';
import { useSetParam } from './ledgerParams';

const PAGE = 200;

/** Fetches the pages that come into view and holds them: on from the page before where that is there, else by its place. */
function usePages(
  filter: LedgerParams,
  first: CostPage | undefined,
  count: number,
): { held: CostRow[]; many: ManyRows<CostRow> } {
  const dispatch = useDispatch<AppDispatch>();
  const [later, setLater] = useState<ReadonlyMap<number, CostPage>>(new Map());
  const asked = useRef(new Set<number>());
  const pages = useMemo(() => (first ? new Map(later).set(0, first) : later), [first, later]);
  const onView = useCallback(
    (from: number, to: number) => {
      for (let page = Math.max(1, Math.floor(from / PAGE)); page <= Math.floor(Math.min(to, count - 1) / PAGE); page++) {
        if (asked.current.has(page)) continue;
        asked.current.add(page);
        const after = pages.get(page - 1)?.next;
        const place = after ? { after } : { offset: String(page * PAGE) };
        const request = dispatch(
          api.endpoints.costPage.initiate({ ...filter, ...place, limit: String(PAGE) }, { subscribe: false }),
        );
        void request.unwrap().then(
          (reply) => setLater((before) => new Map(before).set(page, reply)),
          () => asked.current.delete(page),
        );
      }
    },
    [filter, pages, count, dispatch],
  );
  const held = useMemo(() => [...pages].sort(([a], [b]) => a - b).flatMap(([, page]) => page.rows), [pages]);
  const rowAt = (index: number) => pages.get(Math.floor(index / PAGE))?.rows[index % PAGE];
  return { held, many: { count, rowAt, onView } };
}

interface RowsProps {
  filter: LedgerParams;
  showJob: boolean;
  picks: Picks;
  /** Columns that are not shown. */
  hidden: ReadonlySet<string>;
}

/** The entries of the cost ledger that match, however many there are. */
export function LedgerRows({ filter, showJob, picks, hidden }: RowsProps) {
  const { data: first, error, refetch } = useCostPageQuery({ ...filter, limit: String(PAGE) });
  const { data, error: uncounted, refetch: count } = useCostTotalsQuery(filter);
  const { held, many } = usePages(filter, first, data?.count ?? 0);
  const { exact } = useCurrency();
  const may = useMay();
  const every = useColumns(showJob, picks);
  const columns = may('correct-costs') ? every : every.filter(({ key }) => key !== 'pick');
  const set = useSetParam();
  const failed = error ?? uncounted;
  if (failed) return <Refused message={faultOf(failed).message} onRetry={() => void (error ? refetch() : count())} />;
  if (!data || !first) return <Waiting what="the cost ledger" />;
  const order = { key: filter.sort ?? 'dated', descending: filter.descending === 'yes' };
  return (
    <Table
      label="Cost entries"
      columns={columns}
      hidden={hidden}
      rows={held}
      many={many}
      rowKey={(it) => String(it.id)}
      height="window"
      even
      onPick={may('correct-costs') ? picks.toggle : undefined}
      isCurrent={(it) => picks.has(it.id)}
      empty="No matching entries to date."
      order={{
        ...order,
        onOrder: (key) => set({ sort: key, down: key === order.key && !order.descending ? 'yes' : '' }),
      }}
      foot={{
        label: `${data.count.toLocaleString('en-GB')} ${data.count === 1 ? 'entry' : 'entries'}`,
        cells: { hours: displayQuantity(data.hours), amount: exact(data.amount) },
      }}
    />
  );
}

/** A document's reference, with its own date where it was posted on another. */
function referenceOf({ reference, dated, postedOn }: CostRow): string {
  return dated === postedOn ? reference : `${reference}, dated ${displayDate(dated)}`;
}

/** What became of an entry: reversed or moved, or material that is installed by now or not yet. */
function stateNote({ uninstalled, installedOn, notInstalled, amount, reverses, replaces, reversedBy, moved }: CostRow): string {
  if (reverses !== null) return ` · reverses document ${reverses}`;
  if (reversedBy !== null) return ` · ${moved ? 'moved' : 'reversed'} by document ${reversedBy}`;
  const from = replaces === null ? '' : ` · moved from document ${replaces}`;
  if (!uninstalled || amount < 0) return from;
  if (installedOn) return `${from} · installed ${displayDate(installedOn)}`;
  return from + (notInstalled === amount ? ' · not installed yet' : ' · installed in part');
}

/** Of time: as what it was worked, and at which rate. */
function workedNote({ worked, description }: CostRow): string {
  if (worked === null) return '';
  return `${description === '' ? '' : ' · '}${worked.wageClass} at ${formatScaled(worked.rate, UNIT_COST_DECIMALS)}`;
}

/** The columns; the server sorts by those whose key it knows. An hour's reference leads to the week sheet it was entered on, and who worked it to their week. */
function useColumns(showJob: boolean, picks: Picks): readonly TableColumn<CostRow>[] {
  const withMonth = useWithMonth();
  const { show } = useCurrency();
  const nameOf = useVendorNames();
  const sheets = useMay()('enter-time');
  return useMemo(() => {
    const words = (key: string, title: string, width: number | undefined, value: (row: CostRow) => string) =>
      ({ key, title, width, value, cell: value, cut: true, unsorted: true }) satisfies TableColumn<CostRow>;
    const columns: TableColumn<CostRow>[] = [
      pickColumn(picks),
      { key: 'dated', title: 'Date', width: 92, value: (it) => displayDate(it.postedOn), cell: (it) => displayDate(it.postedOn) },
      {
        key: 'job',
        title: 'Job',
        width: 54,
        value: (it) => it.job,
        cell: (it) => <Link to={withMonth(`/jobs/${encodeURIComponent(it.job)}/costs`)}>{it.job}</Link>,
      },
      words('section', 'Section', 104, (it) => it.section),
      { key: 'cost-code', title: 'Code', width: 66, cut: true, value: (it) => it.costCode, cell: (it) => it.costCode },
      words('type', 'Type', 90, (it) => it.costType),
      {
        ...words('reference', 'Reference', 100, referenceOf),
        cell: (it) =>
          it.worked && sheets ? (
            <Link to={withMonth(`${addressOf({ place: 'week-sheet', document: it.worked.sheet })}?on=${it.dated}`)}>
              {referenceOf(it)}
            </Link>
          ) : (
            referenceOf(it)
          ),
      },
      {
        ...words('party', 'Supplier / payee', 136, (it) => it.worked?.name ?? nameOf(it.party)),
        unsorted: false,
        cell: (it) =>
          it.worked && sheets ? (
            <Link to={withMonth(`/costs/time/person?employee=${encodeURIComponent(it.party)}&on=${it.dated}`)}>
              {it.worked.name}
            </Link>
          ) : (
            (it.worked?.name ?? nameOf(it.party))
          ),
      },
      {
        ...words('description', 'Description', undefined, (it) => it.description + workedNote(it) + stateNote(it)),
        cell: (it) => (
          <>
            {it.description}
            <span className="note">
              {workedNote(it)}
              {stateNote(it)}
            </span>
          </>
        ),
      },
      words('order', 'PO / subcontract no.', 112, (it) => it.commitment ?? ''),
      {
        key: 'hours',
        title: 'Hours',
        width: 66,
        value: (it) => it.hours,
        number: displayQuantity,
        unsorted: true,
        cell: (it) => (it.hours === null ? '' : displayQuantity(it.hours)),
      },
      { key: 'amount', title: 'Amount', width: 108, value: (it) => it.amount, number: show, cell: (it) => show(it.amount) },
      {
        key: 'posting',
        title: 'Posting',
        width: 58,
        value: (it) => String(it.postingId),
        unsorted: true,
        cell: (it) => <Link to={withMonth(`/ledger/postings/${it.postingId}`)}>{it.postingId}</Link>,
      },
    ];
    return columns.filter(({ key }) => showJob || key !== 'job');
  }, [withMonth, show, showJob, picks, nameOf, sheets]);
}
