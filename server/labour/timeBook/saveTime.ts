import { at, known } from '../../../core/errors/known';
import { invoicesOf } from '../../charging/book/chargeColumns';
import { chargingOfBook } from '../../charging/book/chargingOfBook';
import type { BookSave } from '../../bookFormat/bookSave';
import { costCodes } from '../../company/book/bookFiles';
import { insertCostEntries } from '../../costs/costEntries';
import { nextId } from '../../db/sql';
import { assertBookOfTeam, jobs } from '../../jobs/bookFiles';
import { PayrollLineTable } from '../../payroll/models';
import { departments, workKinds } from '../../company/book/listBookFiles';
import { employees } from '../bookFiles';
import { TimeLineTable } from '../models';
import { labourOfBook, timeKey } from './labourOfBook';
import { saveTimePostings, timeEntries, type LineToPost } from '../postLines';

/** Saves lines of time as they are cut; what is posted with its cost entries and a journal a sheet and accounting day. */
export async function saveTime(_rows: readonly unknown[], into: BookSave): Promise<void> {
  const { planned } = into.book.own(labourOfBook);
  if (planned.length === 0) return;
  const first = await nextId(into.sql, TimeLineTable);
  const lines = planned.map(({ row, ...it }, i) => ({
    ...it,
    row,
    id: first + i,
    sheet: row.sheet ?? '',
    line: row.line ?? '',
    employee: row.employee ?? '',
    dated: row.dated ?? '',
    postedOn: row.posted_on ?? row.dated ?? '',
    section: row.section ?? '',
    description: row.description ?? '',
    jobId: row.job ? into.id(jobs, row.job) : null,
    costCodeId: row.cost_code ? into.id(costCodes, row.cost_code) : null,
  }));
  const posted = lines.flatMap((it): LineToPost[] => (it.price ? [{ ...it, price: it.price }] : []));
  const ids = new Map(lines.map((it) => [timeKey(it.sheet, it.line, it.pay ?? ''), it.id]));
  const postings = await saveTimePostings(into.sql, into.actor, posted, (it) => it.sheet);
  await into.insertAll(
    TimeLineTable,
    lines.map(({ row, price, reverses, ...it }) => ({
      id: it.id,
      sheet: it.sheet,
      line: it.line,
      employee_id: into.id(employees, it.employee),
      dated: it.dated,
      posted_on: it.postedOn,
      job_id: it.jobId,
      section: it.section,
      cost_code_id: it.costCodeId,
      pay: it.pay,
      work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
      department_id: row.department ? into.id(departments, row.department) : null,
      wage_class: row.wage_class ?? '',
      hours: it.hours,
      units: row.units ?? null,
      status: row.status ?? ('posted' as const),
      split: it.split ? 1 : 0,
      description: it.description,
      posting_id: postings.get(it.id) ?? null,
      clock: row.clock ?? '',
      returned: row.returned ?? '',
      charge: it.charging.mark,
      charge_from: it.charging.from,
      charge_markup: it.charging.markup,
      reverses_id: reverses && ('id' in reverses ? reverses.id : known(ids, reverses.key)),
      rate: price?.rate ?? null,
      rung: price?.rung ?? '',
      pay_amount: price?.payAmount ?? null,
      burden: price?.burden ?? null,
    })),
  );
  const handed = lines.flatMap((it) => (it.row.handed_over ? [{ time_line_id: it.id, payroll_run_id: it.row.handed_over }] : []));
  const firstHanded = await nextId(into.sql, PayrollLineTable);
  await into.insertAll(
    PayrollLineTable,
    handed.map((it, i) => ({ id: firstHanded + i, ...it })),
  );
  const entries = timeEntries(posted, postings, ({ jobId, section, costCodeId }) =>
    into.costLines.idOf(jobId, section, costCodeId, 'labour'),
  );
  await into.flush();
  const lineOf = new Map(lines.map((it) => [it.id, it]));
  const entryIds = await insertCostEntries(
    into.sql,
    entries.map((it) => ({ ...it, charging: known(lineOf, it.time_line_id ?? 0).charging })),
  );
  const { taken } = into.book.own(chargingOfBook);
  entries.forEach((it, i) => {
    const { row } = known(lineOf, it.time_line_id ?? 0);
    if (row.daywork_invoice) taken.push({ entry: at(entryIds, i), job: row.job ?? '', invoices: invoicesOf(row) });
  });
  const jobIds = new Set(entries.map((it) => it.job_id));
  await assertBookOfTeam(into, jobIds);
}
