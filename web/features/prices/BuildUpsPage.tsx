import { usePriceListQuery } from '../../ground/api/api';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { PriceList, unitCostOfShares } from '../../../core/prices/buildUp';
import type { BuildUpInput, PriceListView } from '../../../wire/prices';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useStanding } from '../../ground/useStanding';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import { leaveFor } from '../../kit/unsaved';
import { BuildUpEditor } from './BuildUpEditor';

const NEW = '(new)';

/** Every build-up with the cost of one unit; the chosen one stands open beside the list. */
export function BuildUpsPage() {
  const { data: book, error, refetch } = useStanding(usePriceListQuery());
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!book) return <Waiting what="the build-ups" />;
  return <BuildUps book={book} />;
}

function BuildUps({ book }: { book: PriceListView }) {
  const withMonth = useWithMonth();
  const [params, setParams] = useSearchParams();
  const of = params.get('of') ?? book.buildUps[0]?.code ?? NEW;
  const prices = useMemo(() => new PriceList(book.items, book.buildUps), [book]);
  const choose = (next: string | null) =>
    setParams((before) => {
      const after = new URLSearchParams(before);
      if (next === null) after.delete('of');
      else after.set('of', next);
      return after;
    });
  if (book.items.length === 0)
    return (
      <Empty title="A build-up is made of priced items, and there are none yet">
        <Link className="button main" to={withMonth('/tenders/prices')}>
          Type or import prices
        </Link>
      </Empty>
    );
  return (
    <div className="page">
      <PageHead title="Build-ups" />
      <div className="grid grid-cols-[minmax(320px,0.7fr)_minmax(0,1.3fr)] gap-8">
        <div>
          <div className="mb-2 flex gap-3">
            <button type="button" className="button" onClick={() => leaveFor(() => choose(NEW))}>
              New build-up
            </button>
          </div>
          <BuildUpList
            listed={book.buildUps}
            prices={prices}
            of={of}
            onChoose={(next) => leaveFor(() => choose(next))}
            empty="No build-up yet: add the first on the right."
          />
        </div>
        <BuildUpEditor
          key={of + JSON.stringify(book.buildUps.find((it) => it.code === of) ?? null)}
          book={book}
          start={book.buildUps.find((it) => it.code === of) ?? null}
          onKept={(next) => choose(next)}
          onRemoved={() => choose(null)}
        />
      </div>
    </div>
  );
}

function BuildUpList({
  listed,
  prices,
  of,
  onChoose,
  empty,
}: {
  listed: readonly BuildUpInput[];
  prices: PriceList;
  of: string;
  onChoose: (code: string) => void;
  empty: string;
}) {
  const kinds = useColumnKinds();
  const { code } = useCurrency();
  const columns = useMemo(() => {
    const unit = kinds.unitCost<BuildUpInput>('unit', `One unit, ${code}`, (it) => unitCostOfShares(prices.unitShares(it.code)));
    const hours = (it: BuildUpInput) => prices.unitShares(it.code).reduce((sum, share) => sum + share.hours, 0);
    return [
      {
        ...kinds.text<BuildUpInput>('code', 'Build-up', (it) => `${it.code} ${it.description}`),
        cell: (it: BuildUpInput) => (
          <button type="button" className="fig" onClick={() => onChoose(it.code)}>
            <b>{it.code}</b> {it.description}
          </button>
        ),
      },
      {
        ...unit,
        cell: (it: BuildUpInput) => (
          <>
            {unit.cell(it)} <span className="note">/ {it.unit}</span>
          </>
        ),
      },
      kinds.quantity<BuildUpInput>('hours', 'Hours', hours),
    ];
  }, [kinds, code, prices, onChoose]);
  return (
    <Table
      label="Build-ups"
      columns={columns}
      rows={listed}
      rowKey={(it) => it.code}
      isCurrent={(it) => it.code === of}
      height="window"
      empty={empty}
    />
  );
}
