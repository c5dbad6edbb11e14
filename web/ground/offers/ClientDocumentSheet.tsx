import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact, displayQuantity } from '../../../core/money/display';
import { DOCUMENT_PARTS, extensionText, paymentName, type ClientDocument } from '../../../core/offers/clientDocument';
import { showUnitCost } from '../../kit/typed/readCells';

/** A quotation or a change order as its client reads it on a screen. */
export function ClientDocumentSheet({ document: it }: { document: ClientDocument }) {
  const amount = (value: number) => displayExact(value, it.digits);
  const [quantities, unitPrices, amounts] = [
    it.lines.some((line) => line.quantity !== null),
    it.lines.some((line) => line.unitPrice !== null),
    it.lines.some((line) => line.amount !== null),
  ];
  const figures = Number(quantities) + Number(unitPrices) + Number(amounts);
  return (
    <article className="border px-4 py-5 sm:px-8 sm:py-7" style={{ background: 'var(--sheet)', borderColor: 'var(--hair)' }}>
      <p className="m-0" style={{ font: "400 14px/1.3 'Source Serif 4', serif" }}>
        {it.company.name}
      </p>
      <p className="note mb-5 mt-0 whitespace-pre-line text-[12.5px]">{it.company.address}</p>
      <h2 style={{ fontSize: 22 }}>{it.title}</h2>
      <p className="mb-4 mt-0">
        {[it.reference, displayDate(it.dated), it.validUntil && `valid until ${displayDate(it.validUntil)}`]
          .filter(Boolean)
          .join(', ')}
      </p>
      <dl className="m-0 mb-4 grid gap-x-6" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <div>
          <dt className="note text-[12.5px]">To</dt>
          <dd className="m-0">{[it.client.name, it.client.contact].filter(Boolean).join(', ')}</dd>
        </div>
        <div>
          <dt className="note text-[12.5px]">For</dt>
          <dd className="m-0">{[it.job.name, it.job.site].filter(Boolean).join(', ')}</dd>
        </div>
      </dl>
      {it.introduction && <p className="whitespace-pre-line">{it.introduction}</p>}
      <table className="ledger static-foot mb-4">
        <thead>
          <tr>
            <th style={{ width: 50, background: 'transparent' }}>Line</th>
            <th style={{ background: 'transparent' }}>Description</th>
            {quantities && (
              <th className="num" style={{ background: 'transparent' }}>
                Quantity
              </th>
            )}
            {unitPrices && (
              <th className="num" style={{ background: 'transparent' }}>
                Unit price
              </th>
            )}
            {amounts && (
              <th className="num" style={{ background: 'transparent' }}>
                {it.currency}
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {it.lines.map((line) => (
            <tr key={line.line}>
              <td>{line.line}</td>
              <td>{line.section ? `${line.section}: ${line.description}` : line.description}</td>
              {quantities && (
                <td className="num">{line.quantity !== null && `${displayQuantity(line.quantity)} ${line.unit}`}</td>
              )}
              {unitPrices && <td className="num">{line.unitPrice !== null && showUnitCost(line.unitPrice, it.digits)}</td>}
              {amounts && <td className="num">{line.amount !== null && amount(line.amount)}</td>}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={1 + figures}>
              {it.kind === 'change' ? 'Change to the contract sum' : 'Price'}, {it.currency} before tax
            </td>
            <td className="num">{amount(it.total)}</td>
          </tr>
        </tfoot>
      </table>
      {it.days !== null && it.days > 0 && <p>{extensionText(it.days)}</p>}
      <Pairs title={DOCUMENT_PARTS.alternates} rows={it.alternates.map((one) => [one.name, amount(one.amount)])} />
      <Pairs title={DOCUMENT_PARTS.payments} rows={it.payments.map((one) => [paymentName(one), amount(one.amount)])} />
      {it.exclusions.length > 0 && (
        <>
          <h3>{DOCUMENT_PARTS.exclusions}</h3>
          <ul className="m-0 mb-3 list-disc pl-5">
            {it.exclusions.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </>
      )}
      {it.terms && (
        <>
          <h3>{DOCUMENT_PARTS.terms}</h3>
          <p className="m-0 whitespace-pre-line text-[13px]">{it.terms}</p>
        </>
      )}
    </article>
  );
}

function Pairs({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  if (rows.length === 0) return null;
  return (
    <>
      <h3>{title}</h3>
      <table className="ledger static-foot mb-3">
        <tbody>
          {rows.map(([name, value], i) => (
            <tr key={i}>
              <td>{name}</td>
              <td className="num">{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
