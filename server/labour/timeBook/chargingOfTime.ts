import { UNSAID, type Charging } from '../../../core/charging/chargeMark';
import type { BookCheck } from '../../bookFormat/bookCheck';
import { chargingOf, invoicesOf } from '../../charging/book/chargeColumns';
import { chargingOfBook } from '../../charging/book/chargingOfBook';
import { isChargedJob } from '../../jobs/bookFiles';
import { labourOfBook, timeKey } from './labourOfBook';
import type { TimeFile, TimeRow } from './timeColumns';

/** What the line that is reversed is marked as. */
export function markOfTarget(book: BookCheck, of: { id: number } | { key: string }, lines: readonly TimeRow[]): Charging {
  if ('id' in of) return book.own(labourOfBook).marks.get(of.id) ?? UNSAID;
  const row = lines.find((it) => it.pay && timeKey(it.sheet ?? '', it.line ?? '', it.pay) === of.key);
  return row ? chargingOf(row) : UNSAID;
}

/** Notes what is charged of posted time: it is judged once the invoices can be added up. */
export function gatherTime(book: BookCheck, file: TimeFile): void {
  const own = book.own(labourOfBook);
  for (const { row, price, hours, charging } of own.planned) {
    const { job, daywork_invoice: invoice } = row;
    if (!price || !job || (charging.mark === '' && !invoice && !isChargedJob(book, job))) continue;
    const employee = row.employee ?? '';
    const who = {
      hours,
      workKind: row.work_kind ?? '',
      employee,
      wageClass: row.wage_class || (own.employees.get(employee)?.wageClass ?? ''),
    };
    const cost = {
      file,
      row: row.row,
      name: `${row.sheet}/${row.line}`,
      job,
      dated: row.dated ?? '',
      postedOn: row.posted_on ?? row.dated ?? '',
      costType: 'labour' as const,
      charging,
      invoices: invoicesOf(row),
    };
    const { costs } = book.own(chargingOfBook);
    costs.push({ ...cost, amount: price.payAmount, time: { part: 'pay', ...who } });
    if (price.burden !== 0) costs.push({ ...cost, amount: price.burden, time: { part: 'burden', ...who } });
  }
}
