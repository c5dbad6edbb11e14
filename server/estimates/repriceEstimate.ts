import { at } from '../../core/errors/known';
import { assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import { priceEstimate, type Estimate } from '../../core/estimates/estimate';
import type { Repricing } from '../../wire/estimates';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';
import { loadEstimate, type LoadedEstimate } from './estimateViews';
import { digestOf } from '../versions/digest';
import { loadPriceList } from '../prices/priceList';
import { assertAsPreviewed } from '../versions/staleness';
import { movable, saveContent, sizeFaults, bumpVersion } from './estimateContent';

/** What pricing a draft with the price list of today would change, line by line; nothing is saved. */
export async function previewReprice(sql: Reader, job: string, number: number): Promise<Repricing> {
  return (await repricing(sql, await loadEstimate(sql, job, number))).shown;
}

/** An estimate at what the price list says today; what is not in it keeps the price it has. */
export async function atTodaysPrices(sql: Reader, estimate: Estimate): Promise<Estimate> {
  const book = await loadPriceList(sql);
  return {
    ...estimate,
    lines: estimate.lines.map((line) => ({
      ...line,
      parts: line.parts.map((it) => ({ ...it, unitCost: book.items.get(it.item)?.unitCost ?? it.unitCost })),
    })),
    prices: new Map(
      [...estimate.prices].map(([code, shares]) => [code, book.buildUps.has(code) ? book.unitShares(code) : shares]),
    ),
  };
}

async function repricing(sql: Reader, estimate: LoadedEstimate): Promise<{ shown: Repricing; next: Estimate; basis: unknown }> {
  const digits = await loadDigits(sql);
  const next = await atTodaysPrices(sql, estimate);
  const [before, after] = [priceEstimate(estimate, digits), priceEstimate(next, digits)];
  const lines = estimate.lines.flatMap((line, i) => {
    const because = [
      ...(JSON.stringify(estimate.prices.get(line.buildUp)) !== JSON.stringify(next.prices.get(line.buildUp))
        ? [line.buildUp]
        : []),
      ...line.parts.filter((it, k) => it.unitCost !== at(at(next.lines, i).parts, k).unitCost).map((it) => it.item),
    ];
    if (because.length === 0) return [];
    return [
      { line: line.line, description: line.description, before: at(before.lines, i).net, after: at(after.lines, i).net, because },
    ];
  });
  const change = { lines, before: before.totals.price, after: after.totals.price };
  const basis = [estimate.row.version, change];
  return { shown: { ...change, seen: digestOf(basis) }, next, basis };
}

/** Prices a draft again with the price list of today, as it was previewed. Gives back the new version. */
export async function repriceEstimate(command: Command, job: string, number: number, seen: string): Promise<number> {
  const { sql, actor } = command;
  const estimate = await movable(sql, 'reprice', job, number);
  const { next, shown: told, basis } = await repricing(sql, estimate);
  assertAsPreviewed(command, 'What repricing would change', basis, seen);
  const faults = sizeFaults(next, await loadDigits(sql));
  assertNoFaults(faults);
  await saveContent(sql, estimate.row.id, { ...next, name: estimate.row.name }, next.prices);
  await bumpVersion(sql, actor, estimate);
  command.note(`${job}/${number}`, told);
  return estimate.row.version + 1;
}
