import { LedrinError } from '../../core/errors/ledrinError';
import type { Estimate } from '../../core/estimates/estimate';
import type { EstimatePattern, EstimatePatternRow, SavePatternInput } from '../../wire/estimates';
import type { Command } from '../acts/command';
import { fieldError } from '../acts/refused';
import type { Reader } from '../db/sql';
import { loadEstimate } from './estimateViews';
import { EstimatePatternTable } from './models';
import { COST_CODES } from './queries';

/** Saves an estimate as it is under a name: what was saved under it before is written over. */
export async function saveEstimatePattern(command: Command, { name, job, estimate }: SavePatternInput): Promise<void> {
  const { sql, actor } = command;
  const { lines, typeMarkups, sectionMarkups, overhead, profit, rounding, prices } = await loadEstimate(sql, job, estimate);
  const content = { lines, typeMarkups, sectionMarkups, overhead, profit, rounding, prices: [...prices] };
  await sql.save(EstimatePatternTable, [{ name, content: JSON.stringify(content), saved_at: actor.at }], ['name']);
  command.note(name, { job, estimate });
}

export async function removeEstimatePattern(command: Command, name: string): Promise<void> {
  const { sql } = command;
  await patternOf(sql, name);
  await sql.remove(EstimatePatternTable, { name });
  command.note(name, {});
}

export async function estimatePatternList(sql: Reader): Promise<EstimatePatternRow[]> {
  return (await sql.find(EstimatePatternTable, {}, ['name'])).map((it) => ({
    name: it.name,
    lines: (JSON.parse(it.content) as EstimatePattern).lines.length,
    savedAt: it.saved_at,
  }));
}

async function patternOf(sql: Reader, name: string) {
  const found = await sql.findOne(EstimatePatternTable, { name });
  if (!found) throw new LedrinError('not-found', `There is no pattern called ${name}; reload the page`);
  return found;
}

/** An estimate as it was saved under a name. Throws bad-input where a cost code it uses is gone since. */
export async function estimateOfPattern(sql: Reader, name: string): Promise<Estimate> {
  const { prices, ...content } = JSON.parse((await patternOf(sql, name)).content) as EstimatePattern;
  const codes = new Set((await sql.all(COST_CODES)).map((row) => row.code));
  const used = [
    ...content.lines.flatMap((it) => it.parts.map((part) => part.costCode)),
    ...prices.flatMap(([, shares]) => shares.map((it) => it.costCode)),
  ];
  const gone = used.find((it) => !codes.has(it));
  if (gone !== undefined)
    throw fieldError(
      'pattern',
      `The pattern ${name} uses cost code ${gone}, which is not there any more; add it, or take another`,
    );
  return { ...content, prices: new Map(prices) };
}
