import { ReceiveForm } from '../../features/billing/ReceiveForm';
import { DayworkInvoicePage } from '../../features/charging/DayworkInvoicePage';

/** An invoice of charged cost, on which money is received as on any other. */
export function DayworkWithReceipts() {
  return <DayworkInvoicePage receive={({ job, reference, open }) => <ReceiveForm job={job} invoice={reference} open={open} />} />;
}
