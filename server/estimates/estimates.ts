import { LAST_ESTIMATE, COST_CODES } from './queries';
import { assertNoFaults, fieldError } from '../acts/refused';
import { estimateOfPattern } from './estimatePatterns';
import { atTodaysPrices } from './repriceEstimate';
import type { Reader } from '../db/sql';
import { EstimateTable } from './models';
import type { Command } from '../acts/command';
import type { Fault } from '../../core/errors/ledrinError';
import type { Estimate, EstimateContent, EstimateLine } from '../../core/estimates/estimate';
import type { PriceList, UnitShare } from '../../core/prices/buildUp';
import type { EstimateInput, NewEstimateInput } from '../../wire/estimates';
import { loadDigits } from '../company/company';
import { loadEstimate } from './estimateViews';
import { jobByNumber } from '../jobs/jobByNumber';
import { loadPriceList } from '../prices/priceList';
import { assertVersion } from '../versions/staleness';
import { movable, saveContent, sizeFaults, bumpVersion } from './estimateContent';

/** Starts an estimate: empty, as a copy, or from a pattern; with the prices of that, or those of today. Gives back its number. */
export async function startEstimate(command: Command, job: string, input: NewEstimateInput): Promise<number> {
  const { sql, actor } = command;
  const { id: jobId } = await jobByNumber(sql, job, 'job');
  const from = await beginningOf(sql, input);
  const last = await sql.get(LAST_ESTIMATE, [jobId]);
  const number = (last?.number ?? 0) + 1;
  const id = await sql.insert(EstimateTable, {
    job_id: jobId,
    number,
    name: input.name,
    status: 'draft',
    chosen: number === 1 ? 1 : 0,
    overhead_rate: 0,
    profit_rate: 0,
    rounding: 0,
    reference: '',
    acceptance: '',
    saved_by: actor.name,
    saved_at: actor.at,
  });
  if (from) await saveContent(sql, id, { ...from, name: input.name }, from.prices);
  command.note(`${job}/${number}`, input);
  return number;
}

/** What a new estimate begins with; null where it is empty. */
async function beginningOf(sql: Reader, { copyOf, pattern, reprice }: NewEstimateInput): Promise<Estimate | null> {
  if (copyOf && pattern)
    throw fieldError('pattern', 'pattern: an estimate is begun from another one or from a pattern; leave one out');
  const from = copyOf ? await loadEstimate(sql, copyOf.job, copyOf.estimate) : pattern && (await estimateOfPattern(sql, pattern));
  if (!from || !reprice) return from || null;
  const next = await atTodaysPrices(sql, from);
  assertNoFaults(sizeFaults(next, await loadDigits(sql)));
  return next;
}

/**
 * Saves an estimate as typed. A build-up it did not use before comes in at what the price list says now; the others keep
 * the unit costs they have. Throws conflict where somebody saved it since it was opened. Gives back the new version.
 */
export async function saveEstimate(command: Command, job: string, number: number, input: EstimateInput): Promise<number> {
  const { sql, actor } = command;
  const estimate = await movable(sql, 'edit', job, number);
  assertVersion(command, 'this estimate', estimate.row, input.version, 'take in what changed, and save again');
  const book = await loadPriceList(sql);
  const content = contentOf(input);
  const prices = pricesFor(content.lines, estimate.prices, book);
  const codes = new Set((await sql.all(COST_CODES)).map((row) => row.code));
  const digits = await loadDigits(sql);
  const faults = [...lineFaults(input, codes, prices), ...sizeFaults({ ...content, prices }, digits)];
  assertNoFaults(faults);
  await saveContent(sql, estimate.row.id, content, prices);
  await bumpVersion(sql, actor, estimate);
  command.note(`${job}/${number}`, {
    version: estimate.row.version + 1,
    lines: input.lines.length,
  });
  return estimate.row.version + 1;
}

function contentOf(input: EstimateInput): EstimateContent {
  return {
    name: input.name,
    overhead: input.overhead,
    profit: input.profit,
    rounding: input.rounding,
    lines: input.lines,
    typeMarkups: Object.fromEntries(input.typeMarkups.map((it) => [it.costType, it.rate])),
    sectionMarkups: Object.fromEntries(input.sectionMarkups.map((it) => [it.section, it.rate])),
  };
}

/** Unit costs of the build-ups that lines use: those already priced as they are, others from the price list. */
function pricesFor(lines: readonly EstimateLine[], kept: Estimate['prices'], book: PriceList): Map<string, readonly UnitShare[]> {
  const used = [...new Set(lines.map((it) => it.buildUp))].filter(
    (code) => code !== '' && (kept.has(code) || book.buildUps.has(code)),
  );
  return new Map(used.map((code) => [code, kept.get(code) ?? book.unitShares(code)]));
}

function lineFaults(input: EstimateInput, codes: ReadonlySet<string>, prices: Estimate['prices']): Fault[] {
  const faults: Fault[] = [];
  const seen = new Set<string>();
  input.lines.forEach((line, i) => {
    const at = (field: string, message: string) => faults.push({ field: `lines.${i}.${field}`, message });
    if (seen.has(line.line)) at('line', `Line ${line.line} appears twice; each line has a number of its own`);
    seen.add(line.line);
    if (line.buildUp !== '' && !prices.has(line.buildUp)) at('buildUp', `There is no build-up ${line.buildUp} in the price list`);
    line.parts.forEach((part, k) => {
      if (!codes.has(part.costCode))
        at(`parts.${k}.costCode`, `There is no cost code ${part.costCode}; add it in Set-up, or choose another`);
    });
  });
  return faults;
}

/** Makes this the job's chosen estimate: the one that is offered. */
export async function chooseEstimate(command: Command, job: string, number: number): Promise<void> {
  const { sql } = command;
  const { id } = await jobByNumber(sql, job, 'job');
  const { row } = await movable(sql, 'choose', job, number);
  await sql.update(EstimateTable, { job_id: id }, { chosen: 0 });
  await sql.update(EstimateTable, { id: row.id }, { chosen: 1 });
  command.note(`${job}/${number}`, {});
}

/** Notes that an estimate was sent to the client; from then on it is frozen. */
export async function sendEstimate(command: Command, job: string, number: number, on: string, reference: string): Promise<void> {
  const { sql } = command;
  const { row } = await movable(sql, 'send', job, number);
  await sql.update(EstimateTable, { id: row.id }, { status: 'sent', sent_on: on, reference });
  command.note(`${job}/${number}`, { on, reference });
}

/** Deletes a draft. What was sent is saved. */
export async function deleteEstimate(command: Command, job: string, number: number): Promise<void> {
  const { sql } = command;
  const { row } = await movable(sql, 'delete', job, number);
  await sql.remove(EstimateTable, { id: row.id });
  command.note(`${job}/${number}`, {});
}
