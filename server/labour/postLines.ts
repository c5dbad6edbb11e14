import { grouped } from '../../core/lists/grouped';
import { journal, type Journal } from '../../core/ledger/journal';
import { present } from '../../core/errors/known';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { NewCostEntry } from '../costs/costEntries';
import type { Sql } from '../db/sql';
import type { Actor } from '../acts/audit';
import { PostingBatch } from '../ledger/postingBatch';

/** A line of time of one class as it is posted, with the ids it is saved under. */
export interface LineToPost {
  id: number;
  sheet: string;
  line: string;
  dated: PlainDate;
  /** The accounting date. */
  postedOn: PlainDate;
  employee: string;
  /** Null: overhead. */
  jobId: number | null;
  section: string;
  costCodeId: number | null;
  hours: number;
  description: string;
  price: { payAmount: number; burden: number };
}

/** The journals lines make, one for each sheet and accounting date, with the lines each is of. */
export function timeJournals<Line extends LineToPost>(lines: readonly Line[]): { journal: Journal; lines: readonly Line[] }[] {
  return [...grouped(lines, (it) => `${it.postedOn} ${it.sheet}`).values()].map((group) => {
    const sum = (value: (it: Line) => number) => group.reduce((total, it) => total + value(it), 0);
    const cost = (it: Line) => it.price.payAmount + it.price.burden;
    const made = journal(present(group[0]).postedOn, [
      ['costLabour', sum((it) => (it.jobId === null ? 0 : cost(it)))],
      ['overheadLabour', sum((it) => (it.jobId === null ? cost(it) : 0))],
      ['wagesClearing', -sum((it) => it.price.payAmount)],
      ['burdenApplied', -sum((it) => it.price.burden)],
    ]);
    return { journal: made, lines: group };
  });
}

/**
 * Saves what is posted in one act as one document, with a journal for each sheet and day; gives back the posting of each line by its id.
 * `act`: which lines go together, a document for each; all of them unless it is said.
 */
export async function saveTimePostings(
  sql: Sql,
  actor: Actor,
  lines: readonly LineToPost[],
  act: (line: LineToPost) => string = () => '',
): Promise<Map<number, number>> {
  const batch = await PostingBatch.open(sql, actor);
  const postings = new Map<number, number>();
  for (const together of grouped(lines, act).values()) {
    const sheets = [...new Set(together.map((it) => it.sheet))];
    const latest = (day: (it: LineToPost) => PlainDate) => together.map(day).reduce((last, it) => (it > last ? it : last));
    const posting = {
      kind: 'time' as const,
      jobId: null,
      reference: sheets.length === 1 ? present(sheets[0]) : `${sheets[0]} and ${sheets.length - 1} more`,
      postedOn: latest((it) => it.postedOn),
      dated: latest((it) => it.dated),
    };
    const id = batch.add(posting, ...timeJournals(together).map((it) => it.journal));
    for (const it of together) postings.set(it.id, id);
  }
  await batch.save();
  return postings;
}

/** The cost entries of lines on jobs: the pay, also where it is nothing, and what the burdens come to. */
export function timeEntries(
  lines: readonly LineToPost[],
  postings: ReadonlyMap<number, number>,
  costLineOf: (line: { jobId: number; section: string; costCodeId: number }) => number,
): NewCostEntry[] {
  return lines.flatMap(({ id, jobId, section, costCodeId, price, hours, ...it }) => {
    const posting = postings.get(id);
    if (jobId === null || costCodeId === null || posting === undefined) return [];
    const entry = {
      posting_id: posting,
      job_id: jobId,
      cost_line_id: costLineOf({ jobId, section, costCodeId }),
      dated: it.dated,
      posted_on: it.postedOn,
      reference: `${it.sheet}/${it.line}`,
      party: it.employee,
      description: it.description,
      time_line_id: id,
    };
    return [
      { ...entry, amount: price.payAmount, hours },
      ...(price.burden === 0 ? [] : [{ ...entry, amount: price.burden, hours: null, description: 'Burden' }]),
    ];
  });
}
