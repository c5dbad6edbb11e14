import { usePriceBookQuery } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { PriceBook, unitCostOfShares } from '../../../core/prices/buildUp';
import { displayQuantity } from '../../../core/money/display';
import type { PriceBookView } from '../../../wire/prices';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { showUnitCostFull } from '../../kit/typed/readCells';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused, Waiting } from '../../kit/States';
import { BuildUpEditor } from './BuildUpEditor';

const NEW = '(new)';

/** Every build-up with the cost of one unit; the chosen one stands open beside the list. */
export function BuildUpsPage() {
  const { data: book, error, refetch } = usePriceBookQuery();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!book) return <Waiting what="the build-ups" />;
  return <BuildUps book={book} />;
}

function BuildUps({ book }: { book: PriceBookView }) {
  const { code } = useCurrency();
  const keep = useKeepMonth();
  const [params, setParams] = useSearchParams();
  const [wanted, setWanted] = useState('');
  const of = params.get('of') ?? book.buildUps[0]?.code ?? NEW;
  const prices = useMemo(() => new PriceBook(book.items, book.buildUps), [book]);
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
        <Link className="button main" to={keep('/tenders/prices')}>
          Type or import prices
        </Link>
      </Empty>
    );
  const listed = book.buildUps.filter((it) => `${it.code} ${it.description}`.toLowerCase().includes(wanted.trim().toLowerCase()));
  return (
    <div className="page">
      <PageHead title="Build-ups" />
      <div className="grid gap-8" style={{ gridTemplateColumns: 'minmax(320px, 0.7fr) minmax(0, 1.3fr)' }}>
        <div>
          <div className="mb-2 flex gap-3">
            <input
              className="box"
              placeholder="Find a build-up"
              aria-label="Find a build-up"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
            <button type="button" className="button" onClick={() => choose(NEW)}>
              New build-up
            </button>
          </div>
          <div className="scroll" style={{ maxHeight: 'calc(100vh - 190px)' }} tabIndex={0} role="region" aria-label="Build-ups">
            <table className="ledger">
              <thead>
                <tr>
                  <th>Build-up</th>
                  <th className="num">One unit, {code}</th>
                  <th className="num">Hours</th>
                </tr>
              </thead>
              <tbody>
                {listed.map((it) => {
                  const shares = prices.unitShares(it.code);
                  return (
                    <tr
                      key={it.code}
                      aria-current={it.code === of || undefined}
                      style={it.code === of ? { background: 'var(--accent-soft)' } : undefined}
                    >
                      <td>
                        <button type="button" className="fig" onClick={() => choose(it.code)}>
                          <b>{it.code}</b> {it.description}
                        </button>
                      </td>
                      <td className="num">
                        {showUnitCostFull(unitCostOfShares(shares))} <span className="note">/ {it.unit}</span>
                      </td>
                      <td className="num">{displayQuantity(shares.reduce((sum, share) => sum + share.hours, 0))}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
            {listed.length === 0 && (
              <p className="note">{wanted ? 'None goes by that name.' : 'No build-up yet: make the first one beside.'}</p>
            )}
          </div>
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
