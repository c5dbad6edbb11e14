import { May } from '../../ground/person';
import { useStanding } from '../../ground/useStanding';
import { useUnsaved } from '../../kit/unsaved';
import { at } from '../../../core/errors/known';
import { PageHead } from '../../kit/PageHead';
import {
  useImportPricesMutation,
  useListsQuery,
  usePriceListQuery,
  useSavePriceItemsMutation,
  useSessionQuery,
} from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useMemo, useRef, useState } from 'react';
import { toast } from '../../kit/toast';
import { COST_TYPES } from '../../../core/costs/costType';
import type { PriceListView } from '../../../wire/prices';
import type { Lists } from '../../../wire/company';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { useAttempt } from '../../ground/useAttempt';
import { faultOf, type ShownFault } from '../../ground/faults';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Refused, Waiting } from '../../kit/States';
import { MovePrices } from './MovePrices';
import { PriceItemSide } from './PriceItemSide';
import { itemCodecs, itemRow, readItems } from './readItems';

/** Every priced item of the company, to type, paste and correct as on a sheet. */
export function PriceItemsPage() {
  const { asOf } = useAsOf();
  const { data: book, error, refetch } = useStanding(usePriceListQuery());
  const { data: lists } = useListsQuery({ asOf });
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!book || !lists) return <Waiting what="the price list" />;
  return <Items key={JSON.stringify(book.items)} book={book} lists={lists} />;
}

/** What is typed of the price list: the rows that show, and what changed among all of them. */
function useItems(book: PriceListView, lists: Lists) {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const codecs = useMemo(() => {
    const costCodes = new Set(lists.costCodes.map((it) => it.code));
    return itemCodecs({ month, digits, costCodes, vendors: new Set(lists.vendors.map((it) => it.code)) });
  }, [month, digits, lists]);
  const [rows, setRows] = useState<GridRow[]>(() => book.items.map((it) => itemRow(it, codecs)));
  const [query, setQuery] = useState('');
  const { faults, changed } = useMemo(() => readItems(rows, book.items, codecs), [rows, book.items, codecs]);
  const gone = book.items.filter((it) => !rows.some((row) => row.was === it.code)).map((it) => it.code);
  const shown = useMemo(() => {
    const text = query.trim().toLowerCase();
    return rows
      .map((_, i) => i)
      .filter((i) => text === '' || Object.values(at(rows, i)).some((it) => it.toLowerCase().includes(text)));
  }, [rows, query]);
  /** Lays what was typed among the rows that show back over all rows. */
  const onRows = (next: GridRow[]) => {
    if (shown.length === rows.length) return setRows(next);
    setRows([...next, ...rows.filter((_, i) => !shown.includes(i))]);
  };
  const placed = new Map(
    [...faults].flatMap(([place, text]) => {
      const [row, key] = place.split('.');
      const where = shown.indexOf(Number(row));
      return where < 0 ? [] : [[`${where}.${key}`, text] as const];
    }),
  );
  return { rows, codecs, query, setQuery, shown, onRows, faults, placed, changed, gone };
}

type Items = ReturnType<typeof useItems>;

function Items({ book, lists }: { book: PriceListView; lists: Lists }) {
  const items = useItems(book, lists);
  const { rows, codecs, shown, onRows, placed } = items;
  const [row, setRow] = useState(0);
  const [moving, setMoving] = useState(false);
  const { refused, setRefused, attempt } = useAttempt();
  const columns = useMemo(() => columnsOf(codecs, itemColumns(lists)), [codecs, lists]);
  useUnsaved(items.changed.length + items.gone.length > 0);
  const chosen = book.items.find((it) => it.code === rows[shown[row] ?? -1]?.was);
  return (
    <div className="page">
      <PageHead title="Price list" />
      <div className="grid grid-cols-[minmax(0,1fr)_230px] gap-6 max-[1150px]:grid-cols-1">
        <div>
          <Tools
            items={items}
            empty={book.items.length === 0}
            moving={moving}
            onMoving={() => setMoving(!moving)}
            onRefused={setRefused}
          />
          {moving && <MovePrices lists={lists} onDone={() => setMoving(false)} />}
          <EntryGrid
            // Other rows show: what was changed among those before is not theirs to take back.
            key={items.query}
            label="Price items"
            columns={columns}
            rows={shown.map((i) => at(rows, i))}
            onRows={(next) => {
              setRefused(null);
              onRows(next);
            }}
            faults={placed}
            height="calc(100vh - 250px)"
            blank={book.items.length === 0 ? 12 : 3}
            onRow={setRow}
          />
          {refused && <Faults refused={refused} />}
          <SaveItems items={items} attempt={attempt} />
        </div>
        <PriceItemSide item={chosen} book={book} />
      </div>
    </div>
  );
}

function Tools({
  items: { query, setQuery },
  empty,
  moving,
  onMoving,
  onRefused,
}: {
  items: Items;
  empty: boolean;
  moving: boolean;
  onMoving: () => void;
  onRefused: (fault: ShownFault | null) => void;
}) {
  const { code } = useCurrency();
  return (
    <div className="mb-2 flex items-center gap-3">
      <input
        className="box w-[220px]"
        placeholder="Find in the list"
        aria-label="Find in the list"
        value={query}
        onChange={(event) => setQuery(event.target.value)}
      />
      <button type="button" className="button" onClick={onMoving} aria-expanded={moving} disabled={empty}>
        Adjust prices …
      </button>
      <PriceListImport onRefused={onRefused} />
      <May do="export:priceItemsCsv">
        <a className="button" href={hrefOf(CALLS.priceItemsCsv, {})} download>
          Export, CSV
        </a>
      </May>
      <span className="note ml-auto text-[12.5px]">Unit costs in {code}; of labour, an hour.</span>
    </div>
  );
}

function Faults({ refused }: { refused: ShownFault }) {
  return (
    <>
      <Refused message={refused.message} />
      {refused.faults.length > 1 && (
        <ul className="m-0 mb-2 list-none p-0 text-[13px]">
          {refused.faults.slice(0, 20).map((fault, i) => (
            <li key={i}>{fault.message}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function SaveItems({
  items: { changed, gone, faults },
  attempt,
}: {
  items: Items;
  attempt: ReturnType<typeof useAttempt>['attempt'];
}) {
  const { data: session } = useSessionQuery();
  const [save, saving] = useSavePriceItemsMutation();
  const saveAll = (today: string) =>
    save({ body: { items: changed.map((it) => it.item), removed: gone, on: today, reason: '' } }).unwrap();
  const count = changed.length + gone.length;
  const message =
    faults.size > 0
      ? `${faults.size} ${faults.size === 1 ? 'cell has an error' : 'cells have errors'}`
      : gone.length > 0
        ? `${gone.join(', ')} will be removed`
        : 'A unit cost that changes is noted in the history of its item. A block pasted from a spreadsheet lands in the cells.';
  return (
    <div className="mt-3 flex items-center gap-3">
      <button
        type="button"
        className="button main"
        disabled={count === 0 || faults.size > 0 || saving.isLoading || !session}
        onClick={() => session && void attempt(() => saveAll(session.today), 'Price list saved')}
      >
        {count === 0 ? 'No changes' : `Save ${count} changed ${count === 1 ? 'item' : 'items'}`}
      </button>
      <span className={faults.size > 0 ? 'fault' : 'note'} role="status">
        {message}
      </span>
    </div>
  );
}

function itemColumns(lists: Lists): GridColumn[] {
  return [
    { key: 'code', title: 'Code', width: 98 },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'costType', title: 'Type', width: 86, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    {
      key: 'costCode',
      title: 'Cost code',
      width: 58,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'unit', title: 'Unit', width: 44 },
    { key: 'unitCost', title: 'Unit cost', width: 74 },
    { key: 'markup', title: 'Own markup %', width: 64 },
    { key: 'wageClass', title: 'Wage class', width: 76 },
    {
      key: 'vendor',
      title: 'Usual vendor',
      width: 98,
      offers: () => lists.vendors.map((it) => ({ value: it.code, label: it.name })),
    },
    { key: 'checkedOn', title: 'Last checked', width: 96 },
  ];
}

function PriceListImport({ onRefused }: { onRefused: (fault: ShownFault | null) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [importPrices, { isLoading }] = useImportPricesMutation();
  const send = async (file: File | undefined) => {
    if (!file) return;
    const form = new FormData();
    form.append('file', file, file.name);
    onRefused(null);
    try {
      const { count } = await importPrices({ body: form }).unwrap();
      toast(`${count} ${count === 1 ? 'item' : 'items'} taken from ${file.name}`);
    } catch (error) {
      onRefused(faultOf(error));
    }
    if (input.current) input.current.value = '';
  };
  return (
    <label
      className="button cursor-pointer"
      title="A CSV file with the columns of price_items.csv; known codes are changed, new ones added"
    >
      {isLoading ? 'Importing …' : 'Import, CSV'}
      <input ref={input} type="file" accept=".csv" className="sr-only" onChange={(event) => void send(event.target.files?.[0])} />
    </label>
  );
}
