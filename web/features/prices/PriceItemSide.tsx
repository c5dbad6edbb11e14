import { usePriceHistoryQuery } from '../../ground/api/api';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { whereUsed } from '../../../core/prices/buildUp';
import type { PriceListView, PriceItemInput } from '../../../wire/prices';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { showUnitCost } from '../../kit/typed/unitCosts';

/** Beside the list: what the item under the cursor cost before, and which build-ups are made of it. */
export function PriceItemSide({ item, book }: { item: PriceItemInput | undefined; book: PriceListView }) {
  if (!item)
    return (
      <aside aria-label="Item" className="note">
        {book.items.length === 0
          ? 'Type the first items, paste them from a spreadsheet, or import a CSV file with the columns code, description, type, cost code, unit cost.'
          : 'Put the cursor on an item to see what it cost before and where it is used.'}
      </aside>
    );
  return <Side item={item} book={book} />;
}

function Side({ item, book }: { item: PriceItemInput; book: PriceListView }) {
  const { digits } = useCurrency();
  const withMonth = useWithMonth();
  const { data: history } = usePriceHistoryQuery({ code: item.code });
  const used = whereUsed(book.buildUps, { item: item.code });
  return (
    <aside aria-label={`Item ${item.code}`}>
      <h2 className="truncate" title={item.description}>
        {item.code}
      </h2>
      <p className="note mb-3 mt-0">{item.description}</p>
      <h3>What it cost</h3>
      {!history || history.length === 0 ? (
        <p className="note m-0">No change of price is noted yet.</p>
      ) : (
        <table className="ledger">
          <tbody>
            {history.slice(0, 12).map((it, i) => (
              <tr key={i} title={`${it.reason ? `${it.reason}, ` : ''}${it.actor}`}>
                <td className="pl-0">
                  {displayDate(it.dated)}
                  {it.reason && <span className="note block text-[12px] leading-tight">{it.reason}</span>}
                </td>
                <td className="num">{showUnitCost(it.unitCost, digits)}</td>
                <td className="num note">{changeText(it.unitCost, history[i + 1]?.unitCost)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h3 className="mt-4">Part of</h3>
      {used.length === 0 ? (
        <p className="note m-0">No build-up.</p>
      ) : (
        <ul className="m-0 list-none p-0">
          {used.map((it) => (
            <li key={it.code}>
              <Link to={withMonth(`/tenders/build-ups?of=${encodeURIComponent(it.code)}`)}>{it.code}</Link>{' '}
              <span className="note">{it.description}</span>
            </li>
          ))}
        </ul>
      )}
    </aside>
  );
}

function changeText(now: number, before: number | undefined): string {
  if (!before) return '';
  const tenths = Math.round(((now - before) / before) * 1000) / 10;
  return `${tenths > 0 ? '+' : ''}${tenths.toFixed(1).replace('-', '−')} %`;
}
