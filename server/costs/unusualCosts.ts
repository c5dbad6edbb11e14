import { known } from '../../core/errors/known';
import { isBought, vendorCode } from '../../core/costs/vendorOf';
import { VENDOR_LIST } from '../company/queries';
import { costWarnings } from '../../core/costs/costWarnings';
import type { CostBatchInput, CostPreview } from '../../wire/costs';
import type { Reader } from '../db/sql';
import { allThreesOf } from './ledgerQueries';
import type { PlannedBatch } from './postCosts';
import { JOBS_OF_BATCH, POSTED_REFERENCES, USUAL_AMOUNTS } from './queries';

/** What has to be seen of the lines of a batch before they are posted. `lastLine` is the newest cost line there was before it. */
export async function unusualCosts(
  sql: Reader,
  { lines, asOf }: CostBatchInput,
  plan: PlannedBatch,
  { lastLine, digits }: { lastLine: number; digits: number },
): Promise<CostPreview['unusual']> {
  const ids = JSON.stringify([...new Set(plan.entries.map((it) => it.cost_line_id))]);
  const jobIds = JSON.stringify(plan.jobIds);
  const jobs = new Map((await sql.all(JOBS_OF_BATCH, [jobIds, lastLine])).map((it) => [it.id, it]));
  const usual = new Map((await sql.all(USUAL_AMOUNTS, [ids, jobIds])).map((it) => [it.id, it.usual]));
  const posted = await postedReferences(sql, lines);
  const vendors = await sql.all(VENDOR_LIST);
  const above = new Set<string>();
  return lines.flatMap((line, i) => {
    const entry = plan.entries[i];
    if (!entry) return [];
    const job = known(jobs, entry.job_id);
    const name = `${nameOf(line)}\u001f${line.amount}`;
    const twice = line.reference !== '' && above.has(name);
    above.add(name);
    const of = {
      twice,
      sameReference: posted.get(nameOf(line)) ?? null,
      sections: new Set(JSON.parse(job.sections) as string[]),
      awardedOn: job.awardedOn,
      usual: usual.get(entry.cost_line_id) ?? null,
      isVendor: vendors.length > 0 && isBought(line.costType) ? vendorCode(line.party, vendors) !== null : null,
    };
    return costWarnings(line, of, asOf, digits).map((it) => ({ line: i, ...it }));
  });
}

const nameOf = ({ party, reference }: { party: string; reference: string }) => `${party}\u001f${reference}`;

/** The document each reference of a party was posted with: found by the words it begins with, as the index has them (`cost_text`). */
async function postedReferences(sql: Reader, lines: CostBatchInput['lines']): Promise<Map<string, number>> {
  const words = lines.filter((it) => it.reference !== '').map((it) => `${it.reference} ${it.party} `);
  const asked = [...new Set(words)].map((begin) => `(${allThreesOf(begin)})`);
  if (asked.length === 0) return new Map();
  const rows = await sql.all(POSTED_REFERENCES, [asked.join(' OR ')]);
  return new Map(rows.map((it) => [nameOf(it), it.posting]));
}
