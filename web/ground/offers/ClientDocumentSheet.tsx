import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact, displayQuantity } from '../../../core/money/display';
import { DOCUMENT_PARTS, extensionText, paymentName, type ClientDocument } from '../../../core/offers/clientDocument';
import { showUnitCost } from '../../kit/typed/unitCosts';

/** A quotation or a change order as its client reads it on a screen. */
export function ClientDocumentSheet({ document: it }: { document: ClientDocument }) {
  const amount = (value: number) => displayExact(value, it.digits);
  return (
    <article className="sheet-of-client px-4 py-5 sm:px-8 sm:py-7">
      <Heading document={it} />
      {it.introduction && <p className="whitespace-pre-line">{it.introduction}</p>}
      <Lines document={it} />
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

/** Who writes, what it is, to whom and for which work. */
function Heading({ document: it }: { document: ClientDocument }) {
  const valid = it.validUntil && `valid until ${displayDate(it.validUntil)}`;
  return (
    <>
      {it.company.logo && <img src={it.company.logo} alt="" className="float-right max-h-[48px] max-w-[140px]" />}
      <p className="sender m-0">{it.company.name}</p>
      <p className="note mb-5 mt-0 whitespace-pre-line text-[12.5px]">{it.company.address}</p>
      <h2 className="text-[22px]">{it.title}</h2>
      <p className="mb-4 mt-0">{[it.reference, displayDate(it.dated), valid].filter(Boolean).join(', ')}</p>
      <dl className="m-0 mb-4 grid grid-cols-2 gap-x-6">
        <div>
          <dt className="note text-[12.5px]">To</dt>
          <dd className="m-0">{[it.client.name, it.client.contact].filter(Boolean).join(', ')}</dd>
        </div>
        <div>
          <dt className="note text-[12.5px]">For</dt>
          <dd className="m-0">{[it.job.name, it.job.site].filter(Boolean).join(', ')}</dd>
        </div>
      </dl>
    </>
  );
}

type Line = ClientDocument['lines'][number];

/** The figures a line may show; a column stands only where some line has it. */
function figuresOf(it: ClientDocument): { title: string; of: (line: Line) => string }[] {
  const columns = [
    {
      title: 'Quantity',
      shown: it.lines.some((line) => line.quantity !== null),
      of: (line: Line) => (line.quantity === null ? '' : `${displayQuantity(line.quantity)} ${line.unit}`),
    },
    {
      title: 'Unit price',
      shown: it.lines.some((line) => line.unitPrice !== null),
      of: (line: Line) => (line.unitPrice === null ? '' : showUnitCost(line.unitPrice, it.digits)),
    },
    {
      title: it.currency,
      shown: it.lines.some((line) => line.amount !== null),
      of: (line: Line) => (line.amount === null ? '' : displayExact(line.amount, it.digits)),
    },
  ];
  return columns.filter(({ shown }) => shown);
}

function Lines({ document: it }: { document: ClientDocument }) {
  const figures = figuresOf(it);
  return (
    <div className="scroll mb-4" tabIndex={0} role="region" aria-label="Lines">
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th className="w-[50px]">Line</th>
            <th>Description</th>
            {figures.map(({ title }) => (
              <th key={title} className="num">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {it.lines.map((line) => (
            <tr key={line.line}>
              <td>{line.line}</td>
              <td>{line.section ? `${line.section}: ${line.description}` : line.description}</td>
              {figures.map(({ title, of }) => (
                <td key={title} className="num">
                  {of(line)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={1 + figures.length}>
              {it.kind === 'change' ? 'Change to the contract sum' : 'Price'}, {it.currency} before tax
            </td>
            <td className="num">{displayExact(it.total, it.digits)}</td>
          </tr>
        </tfoot>
      </table>
    </div>
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
