import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import { priceEstimate, type Estimate, type EstimateLine } from '../../core/estimating/estimate';
import type { PriceBook, UnitShare } from '../../core/pricing/buildUp';
import type { EstimateInput, NewEstimateInput, Repricing } from '../../wire/estimates';
import type { Database } from '../db/database';
import { bulkInsert, nextId, type Sql } from '../db/sql';
import { costCodeIds } from '../queries/costCodes';
import { loadCompany } from '../queries/company';
import { loadEstimate, type LoadedEstimate } from '../queries/estimates';
import { jobByNumber } from '../queries/jobs';
import { loadPriceBook } from '../queries/priceBook';
import { record, type Actor } from './post';

type Content = Omit<Estimate, 'prices'> & { name: string };

/** Starts an estimate, empty or as a copy with the prices of what it is copied from. Gives back its number. */
export async function startEstimate(database: Database, actor: Actor, job: string, input: NewEstimateInput): Promise<number> {
  return database.write(async (sql) => {
    const { id: jobId } = await jobByNumber(sql, job, 'job');
    const from = input.copyOf && (await loadEstimate(sql, input.copyOf.job, input.copyOf.estimate));
    const last = await sql.get<{ number: number | null }>('SELECT max(number) AS number FROM estimate WHERE job_id = $1', [
      jobId,
    ]);
    const number = (last?.number ?? 0) + 1;
    const id = await sql.insert(
      `INSERT INTO estimate (job_id, number, name, status, chosen, overhead_rate, profit_rate, rounding, reference, acceptance, saved_by, saved_at)
        VALUES ($1, $2, $3, 'draft', $4, 0, 0, 0, '', '', $5, $6)`,
      [jobId, number, input.name, number === 1 ? 1 : 0, actor.name, actor.at],
    );
    if (from) await saveContent(sql, id, { ...from, name: input.name }, from.prices);
    await record(sql, actor, 'start-estimate', `${job}/${number}`, input);
    return number;
  });
}

/**
 * Keeps an estimate as typed. A build-up it did not use before comes in at what the price book says now; the others keep
 * the unit costs they have. Throws conflict where somebody saved it since it was opened. Gives back the new version.
 */
export async function saveEstimate(
  database: Database,
  actor: Actor,
  job: string,
  number: number,
  input: EstimateInput,
): Promise<number> {
  return database.write(async (sql) => {
    const estimate = await draftOf(sql, job, number);
    const { version, savedBy, savedAt } = estimate.row;
    if (version !== input.version)
      throw new LedrinError(
        'conflict',
        `${savedBy} saved this estimate at ${savedAt.slice(11, 16)} on ${savedAt.slice(0, 10)}, after you opened it; take in what changed, and save again`,
        [{ field: 'version', message: `it is at version ${version} now` }],
      );
    const book = await loadPriceBook(sql);
    const content = contentOf(input);
    const prices = pricesFor(content.lines, estimate.prices, book);
    const codes = new Set((await sql.all<{ code: string }>('SELECT code FROM cost_code')).map((row) => row.code));
    const digits = (await loadCompany(sql))?.digits ?? 2;
    const faults = [...lineFaults(input, codes, prices), ...sizeFaults({ ...content, prices }, digits)];
    if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
    await saveContent(sql, estimate.row.id, content, prices);
    await touch(sql, actor, estimate);
    await record(sql, actor, 'save-estimate', `${job}/${number}`, { version: version + 1, lines: input.lines.length });
    return version + 1;
  });
}

function contentOf(input: EstimateInput): Content {
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

/** Unit costs of the build-ups that lines use: those already priced as they are, others from the price book. */
function pricesFor(lines: readonly EstimateLine[], kept: Estimate['prices'], book: PriceBook): Map<string, readonly UnitShare[]> {
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
    if (seen.has(line.line)) at('line', `Line ${line.line} is there twice; each line has a number of its own`);
    seen.add(line.line);
    if (line.buildUp !== '' && !prices.has(line.buildUp)) at('buildUp', `There is no build-up ${line.buildUp} in the price book`);
    line.parts.forEach((part, k) => {
      if (!codes.has(part.costCode))
        at(`parts.${k}.costCode`, `There is no cost code ${part.costCode}; add it in Set-up, or choose another`);
    });
  });
  return faults;
}

function sizeFaults(estimate: Estimate, digits: number): Fault[] {
  const priced = priceEstimate(estimate, digits);
  const faults = priced.lines.flatMap((it, i) =>
    Math.abs(it.cost) > LARGEST_AMOUNT || Math.abs(it.net) > LARGEST_AMOUNT
      ? [
          {
            field: `lines.${i}.quantity`,
            message: `Line ${estimate.lines[i]!.line} comes to more than Ledrin can hold; check its quantity`,
          },
        ]
      : [],
  );
  if (faults.length === 0 && Math.abs(priced.totals.price) > LARGEST_AMOUNT)
    faults.push({ field: 'lines', message: 'The estimate comes to more than Ledrin can hold; check quantities and markups' });
  return faults;
}

async function draftOf(sql: Sql, job: string, number: number): Promise<LoadedEstimate> {
  const estimate = await loadEstimate(sql, job, number);
  if (estimate.row.status !== 'draft')
    throw new LedrinError(
      'refused',
      `Estimate ${number} was sent on ${estimate.row.sentOn}, and stays as it was; copy it and change the copy`,
    );
  return estimate;
}

async function touch(sql: Sql, actor: Actor, { row }: LoadedEstimate): Promise<void> {
  await sql.run('UPDATE estimate SET version = $1, saved_by = $2, saved_at = $3 WHERE id = $4', [
    row.version + 1,
    actor.name,
    actor.at,
    row.id,
  ]);
}

/** Writes the whole content of a draft anew. */
async function saveContent(sql: Sql, id: number, content: Content, prices: Estimate['prices']): Promise<void> {
  await sql.run('UPDATE estimate SET name = $1, overhead_rate = $2, profit_rate = $3, rounding = $4 WHERE id = $5', [
    content.name,
    content.overhead,
    content.profit,
    content.rounding,
    id,
  ]);
  for (const table of ['estimate_line', 'estimate_markup', 'estimate_price'])
    await sql.run(`DELETE FROM ${table} WHERE estimate_id = $1`, [id]);
  const codes = await costCodeIds(sql);
  await bulkInsert(
    sql,
    'estimate_markup',
    ['estimate_id', 'cost_type', 'section', 'rate'],
    [
      ...Object.entries(content.typeMarkups).map(([type, rate]) => [id, type, null, rate]),
      ...Object.entries(content.sectionMarkups).map(([section, rate]) => [id, null, section, rate]),
    ],
  );
  const first = await nextId(sql, 'estimate_line');
  await bulkInsert(
    sql,
    'estimate_line',
    ['id', 'estimate_id', 'line', 'section', 'description', 'quantity', 'unit', 'build_up', 'markup_rate'],
    content.lines.map((it, i) => [
      first + i,
      id,
      it.line,
      it.section,
      it.description,
      it.quantity,
      it.unit,
      it.buildUp,
      it.markup,
    ]),
  );
  await bulkInsert(
    sql,
    'estimate_part',
    [
      'estimate_line_id',
      'price_item',
      'description',
      'cost_code_id',
      'cost_type',
      'basis',
      'quantity',
      'unit',
      'unit_cost',
      'markup_rate',
    ],
    content.lines.flatMap((line, i) =>
      line.parts.map((it) => [
        first + i,
        it.item,
        it.description,
        codes.get(it.costCode),
        it.costType,
        it.basis,
        it.quantity,
        it.unit,
        it.unitCost,
        it.markup,
      ]),
    ),
  );
  await bulkInsert(
    sql,
    'estimate_price',
    ['estimate_id', 'build_up', 'cost_code_id', 'cost_type', 'markup_rate', 'unit_cost', 'hours'],
    [...prices].flatMap(([code, shares]) =>
      shares.map((it) => [id, code, codes.get(it.costCode), it.costType, it.markup, it.cost, it.hours]),
    ),
  );
}

/** What pricing a draft with the price book of today would change, line by line; nothing is kept. */
export async function previewReprice(database: Database, job: string, number: number): Promise<Repricing> {
  return database.consistent(async (sql) => repricing(sql, await loadEstimate(sql, job, number)).then((it) => it.told));
}

async function repricing(sql: Sql, estimate: LoadedEstimate): Promise<{ told: Repricing; next: Estimate }> {
  const book = await loadPriceBook(sql);
  const digits = (await loadCompany(sql))?.digits ?? 2;
  const next: Estimate = {
    ...estimate,
    lines: estimate.lines.map((line) => ({
      ...line,
      parts: line.parts.map((it) => ({ ...it, unitCost: book.items.get(it.item)?.unitCost ?? it.unitCost })),
    })),
    prices: new Map(
      [...estimate.prices].map(([code, shares]) => [code, book.buildUps.has(code) ? book.unitShares(code) : shares]),
    ),
  };
  const [before, after] = [priceEstimate(estimate, digits), priceEstimate(next, digits)];
  const lines = estimate.lines.flatMap((line, i) => {
    const because = [
      ...(JSON.stringify(estimate.prices.get(line.buildUp)) !== JSON.stringify(next.prices.get(line.buildUp))
        ? [line.buildUp]
        : []),
      ...line.parts.filter((it, k) => it.unitCost !== next.lines[i]!.parts[k]!.unitCost).map((it) => it.item),
    ];
    if (because.length === 0) return [];
    return [
      { line: line.line, description: line.description, before: before.lines[i]!.net, after: after.lines[i]!.net, because },
    ];
  });
  return { told: { lines, before: before.totals.price, after: after.totals.price }, next };
}

/** Prices a draft anew with the price book of today. Gives back the new version. */
export async function repriceEstimate(database: Database, actor: Actor, job: string, number: number): Promise<number> {
  return database.write(async (sql) => {
    const estimate = await draftOf(sql, job, number);
    const { next, told } = await repricing(sql, estimate);
    const faults = sizeFaults(next, (await loadCompany(sql))?.digits ?? 2);
    if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
    await saveContent(sql, estimate.row.id, { ...next, name: estimate.row.name }, next.prices);
    await touch(sql, actor, estimate);
    await record(sql, actor, 'reprice-estimate', `${job}/${number}`, told);
    return estimate.row.version + 1;
  });
}

/** Makes this the job's chosen estimate: the one that is offered. */
export async function chooseEstimate(database: Database, actor: Actor, job: string, number: number): Promise<void> {
  await database.write(async (sql) => {
    const { status } = await jobByNumber(sql, job, 'job');
    if (status !== 'tender')
      throw new LedrinError('refused', `Job ${job} is ${status}; its contract was made from the estimate chosen then`);
    const { row } = await loadEstimate(sql, job, number);
    await sql.run('UPDATE estimate SET chosen = (id = $1) WHERE job_id = (SELECT job_id FROM estimate WHERE id = $1)', [row.id]);
    await record(sql, actor, 'choose-estimate', `${job}/${number}`, {});
  });
}

/** Notes that an estimate was sent to the client; from then on it is frozen. */
export async function sendEstimate(
  database: Database,
  actor: Actor,
  job: string,
  number: number,
  on: string,
  reference: string,
): Promise<void> {
  await database.write(async (sql) => {
    const { row, lines } = await draftOf(sql, job, number);
    if (lines.length === 0) throw new LedrinError('refused', `Estimate ${number} has no lines yet; there is nothing to send`);
    await sql.run(`UPDATE estimate SET status = 'sent', sent_on = $1, reference = $2 WHERE id = $3`, [on, reference, row.id]);
    await record(sql, actor, 'send-estimate', `${job}/${number}`, { on, reference });
  });
}

/** Throws a draft away. What was sent is kept. */
export async function discardEstimate(database: Database, actor: Actor, job: string, number: number): Promise<void> {
  await database.write(async (sql) => {
    const { row } = await draftOf(sql, job, number);
    const quoted = await sql.get<{ number: number }>('SELECT number FROM quotation WHERE estimate_id = $1', [row.id]);
    if (quoted)
      throw new LedrinError('refused', `Quotation ${quoted.number} is made from estimate ${number}; throw that away first`);
    await sql.run('DELETE FROM estimate WHERE id = $1', [row.id]);
    await record(sql, actor, 'discard-estimate', `${job}/${number}`, {});
  });
}
