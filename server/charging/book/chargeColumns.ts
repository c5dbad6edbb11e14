import { CHARGE_MARKS, type Charging } from '../../../core/charging/chargeMark';
import { date, markup, oneOf, text } from '../../bookFormat/columns';

/** What is said of charging a cost, in every file that brings some. */
export const CHARGE_COLUMNS = {
  charge: oneOf(CHARGE_MARKS)('empty: no; on a charged job yes'),
  charge_from: date('the mark counts from here; empty: from the accounting date'),
  markup_percent: markup('empty: that of the job for its cost type'),
  charge_wording: text('what the client reads of it; empty: its own words'),
  daywork_invoice: text('that took it; the invoices in order, parted by `;`, where one was credited in full'),
};

/** The cells of a row, as far as they could be read. */
export interface ChargeCells {
  charge?: 'no' | 'yes' | 'hold' | null | undefined;
  charge_from?: string | null | undefined;
  markup_percent?: number | null | undefined;
  charge_wording?: string | null | undefined;
  daywork_invoice?: string | null | undefined;
}

export const chargingOf = (row: ChargeCells): Charging => ({
  mark: row.charge ?? '',
  from: row.charge_from ?? null,
  markup: row.markup_percent ?? null,
  wording: row.charge_wording ?? '',
});

/** The invoices a cell names, in order. */
export const invoicesOf = ({ daywork_invoice: cell }: ChargeCells): string[] =>
  (cell ?? '')
    .split(';')
    .map((it) => it.trim())
    .filter((it) => it !== '');

/** The invoices that took an entry, as its cell names them. */
export const INVOICES_OF_ENTRY = (entry: string) =>
  `(SELECT group_concat(d.reference, ';' ORDER BY d.dated, d.id) FROM daywork_line w JOIN daywork_invoice d ON d.id = w.daywork_invoice_id WHERE w.cost_entry_id = ${entry})`;

/** The columns as an export writes them: of mark `m` of an entry on job `job`. */
export const CHARGE_CELLS = (
  entry: string,
) => `CASE WHEN m.mark = 'no' AND job.pricing = 'fixed' THEN NULL ELSE m.mark END AS charge, m.charge_from,
  m.markup AS markup_percent, m.wording AS charge_wording, ${INVOICES_OF_ENTRY(entry)} AS daywork_invoice`;
