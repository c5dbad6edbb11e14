import { journal } from '../../core/ledger/journal';
import { known, present } from '../../core/errors/known';
import type { BookSave } from '../book/bookSave';
import { costCodes } from '../company/bookFiles';
import { insertCostEntries, refreshCostTotals, type NewCostEntry } from '../costs/costEntries';
import { nextId } from '../db/sql';
import { assertBookOfTeam, jobs } from '../jobs/bookFiles';
import { PostingBatch } from '../ledger/postingBatch';
import { employees, workKinds } from './bookFiles';
import { TimeLineTable } from './models';
import { labourOfBook, timeKey, type PlannedTime } from './planTime';

/** Saves lines of time as they are cut; what is posted with its cost entries and a journal a sheet and accounting day. */
export async function saveTime(_rows: readonly unknown[], into: BookSave): Promise<void> {
  const { planned } = into.book.own(labourOfBook);
  if (planned.length === 0) return;
  const first = await nextId(into.sql, TimeLineTable);
  const lines = planned.map((it, i) => ({ ...it, id: first + i, postedOn: it.row.posted_on ?? it.row.dated ?? '' }));
  const ids = new Map(lines.map((it) => [timeKey(it.row.sheet ?? '', it.row.line ?? '', it.pay ?? ''), it.id]));
  const postings = await post(lines, into);
  await into.insertAll(
    TimeLineTable,
    lines.map((it) => ({
      ...{
        id: it.id,
        sheet: it.row.sheet ?? '',
        line: it.row.line ?? '',
        employee_id: into.id(employees, it.row.employee ?? ''),
      },
      ...{ dated: it.row.dated ?? '', posted_on: it.postedOn, job_id: it.row.job ? into.id(jobs, it.row.job) : null },
      ...{ section: it.row.section ?? '', cost_code_id: it.row.cost_code ? into.id(costCodes, it.row.cost_code) : null },
      ...{ work_kind_id: it.row.work_kind ? into.id(workKinds, it.row.work_kind) : null, wage_class: it.row.wage_class ?? '' },
      ...{ pay: it.pay, hours: it.hours, units: it.row.units ?? null, status: it.row.status ?? ('posted' as const) },
      ...{ description: it.row.description ?? '', split: it.split ? 1 : 0, posting_id: postings.get(it.id) ?? null },
      reverses_id: it.reverses && ('id' in it.reverses ? it.reverses.id : known(ids, it.reverses.key)),
      ...{ rate: it.price?.rate ?? null, rung: it.price?.rung ?? '', pay_amount: it.price?.payAmount ?? null },
      burden: it.price?.burden ?? null,
    })),
  );
  const entries = lines.flatMap((it) => entriesOf(it, into, postings.get(it.id)));
  await into.flush();
  await insertCostEntries(into.sql, entries);
  const jobIds = new Set(entries.map((it) => it.job_id));
  await assertBookOfTeam(into, jobIds);
  await refreshCostTotals(into.sql, [...jobIds]);
}

type Line = PlannedTime & { id: number; postedOn: string };

/** A posting a sheet and accounting day; gives back the posting of each line. */
async function post(lines: readonly Line[], into: BookSave): Promise<Map<number, number>> {
  const batch = await PostingBatch.open(into.sql, into.actor);
  const groups = new Map<string, Line[]>();
  for (const it of lines) {
    if (!it.price) continue;
    const key = `${it.postedOn} ${it.row.sheet}`;
    groups.set(key, [...(groups.get(key) ?? []), it]);
  }
  const postings = new Map<number, number>();
  for (const group of groups.values()) {
    const { row, postedOn } = present(group[0]);
    const sum = (value: (it: Line) => number) => group.reduce((total, it) => total + value(it), 0);
    const cost = (it: Line) => (it.price?.payAmount ?? 0) + (it.price?.burden ?? 0);
    const made = journal(postedOn, [
      ['costLabour', sum((it) => (it.row.job ? cost(it) : 0))],
      ['overheadLabour', sum((it) => (it.row.job ? 0 : cost(it)))],
      ['wagesClearing', -sum((it) => it.price?.payAmount ?? 0)],
      ['burdenApplied', -sum((it) => it.price?.burden ?? 0)],
    ]);
    const id = batch.add({ kind: 'time', jobId: null, reference: row.sheet ?? '', postedOn, dated: row.dated ?? postedOn }, made);
    for (const it of group) postings.set(it.id, id);
  }
  await batch.save();
  return postings;
}

/** The pay of a line on a job, also where it is nothing, and what its burdens come to. */
function entriesOf({ row, price, id, hours, postedOn }: Line, into: BookSave, posting: number | undefined): NewCostEntry[] {
  if (!price || !row.job || !row.cost_code || posting === undefined) return [];
  const jobId = into.id(jobs, row.job);
  const line = { section: row.section ?? null, cost_code: row.cost_code, cost_type: 'labour' as const };
  const entry = {
    ...{ posting_id: posting, job_id: jobId, cost_line_id: into.costLine(jobId, line, costCodes), dated: row.dated ?? '' },
    ...{
      posted_on: postedOn,
      reference: `${row.sheet}/${row.line}`,
      party: row.employee ?? '',
      description: row.description ?? '',
      time_line_id: id,
    },
  };
  return [
    { ...entry, amount: price.payAmount, hours },
    ...(price.burden === 0 ? [] : [{ ...entry, amount: price.burden, hours: null, description: 'Burden' }]),
  ];
}
