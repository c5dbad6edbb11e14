import { displayDate } from '../../../core/calendar/displayDate';
import type { InvoiceLine } from '../../../core/charging/dayworkInvoice';
import { useSessionQuery } from '../../ground/api/api';
import { useCurrency } from '../../ground/company';

interface Props {
  invoice: { lines: readonly InvoiceLine[]; amount: number; tax: number; payable: number };
  label: string;
}

/** The lines of an invoice and what it asks for, as its document has them. */
export function InvoiceLines({ invoice, label }: Props) {
  const { exact } = useCurrency();
  const { data: session } = useSessionQuery();
  return (
    <table className="ledger static-foot" aria-label={label}>
      <thead>
        <tr>
          <th className="w-[100px]">Date</th>
          <th>Description</th>
          <th className="num">Amount</th>
        </tr>
      </thead>
      <tbody>
        {invoice.lines.map((it, i) => (
          <tr key={i}>
            <td className="whitespace-nowrap">{displayDate(it.dated)}</td>
            <td>{it.words}</td>
            <td className="num">{exact(it.charge)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td />
          <td>Total</td>
          <td className="num">{exact(invoice.amount)}</td>
        </tr>
        <tr>
          <td />
          <td>{session?.company?.taxName || 'Tax'}</td>
          <td className="num">{exact(invoice.tax)}</td>
        </tr>
        <tr>
          <td />
          <td>
            <b>Payable</b>
          </td>
          <td className="num">
            <b>{exact(invoice.payable)}</b>
          </td>
        </tr>
      </tfoot>
    </table>
  );
}
