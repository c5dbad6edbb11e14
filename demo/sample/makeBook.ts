// Writes demo/book: the sample company, eighteen months of it. Run with `npx tsx demo/sample/makeBook.ts`.
// Everything is drawn from one seed, so that the book comes out the same each time.
import { mkdirSync, writeFileSync } from 'node:fs';
import { addDays, addMonths, lastDay } from '../../core/calendar/plainDate';
import { csvText } from '../../server/papers/csv';
import { BOOK_FILES, type BookFileName } from '../../server/book/bookFiles';
import { COST_CODES, CREWS, CUSTOMERS, PARTIES, SAMPLE_JOBS, VENDORS, WORKS, type SampleJob } from './jobs';

const FIRST_MONTH = '2029-11';
const MONTHS = 18;
const LABOUR_RATE = 34.5;

type Row = Record<string, string | number>;
const book: Record<BookFileName, Row[]> = Object.fromEntries(Object.keys(BOOK_FILES).map((file) => [file, []])) as never;
const add = (file: BookFileName, row: Row) => book[file].push(row);

let seed = 20_310_430;
function random(): number {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
  return seed / 2 ** 32;
}
const between = (low: number, high: number) => low + (high - low) * random();
const money = (amount: number) => (Math.round(amount * 100) / 100).toFixed(2);
const month = (index: number) => addMonths(FIRST_MONTH, index);
const dayIn = (index: number, day: number) => `${month(index)}-${String(day).padStart(2, '0')}`;

interface Line {
  sov: string;
  section: string;
  description: string;
  value: number;
  /** First and last share of the job's life in which the line is worked. */
  from: number;
  to: number;
  costs: { code: string; type: string; amount: number }[];
}

function linesOf(job: SampleJob): Line[] {
  const lines: Line[] = [];
  let left = Math.round(job.sum * 0.94);
  const prelims = job.sum - left;
  lines.push({ sov: '1', section: job.sections[0]!.name, description: 'Preliminaries and site management', value: prelims, from: 0, to: 1, costs: [{ code: '0700', type: 'labour', amount: prelims * job.costShare * 0.8 }, { code: '0100', type: 'other', amount: prelims * job.costShare * 0.2 }] });
  const works = job.sections.flatMap((section, s) => WORKS[section.kind].map((work, i, all) => ({ section, s, work, at: (i + s * 0.7) / (all.length + (job.sections.length - 1) * 0.7) })));
  const weights = works.reduce((sum, { section, work }) => sum + section.share * work[1], 0);
  works.forEach(({ section, work: [description, weight, code, split], at }, i) => {
    const share = Math.round((job.sum * 0.94 * section.share * weight) / weights / 50) * 50;
    const value = i === works.length - 1 ? left : share;
    left -= value;
    const costs = Object.entries(split).map(([type, part]) => ({ code, type, amount: value * job.costShare * part }));
    lines.push({ sov: String(i + 2), section: section.name, description, value, from: at * 0.72, to: Math.min(1, at * 0.72 + 0.42), costs });
  });
  return lines;
}

/** Share of a line done at a share of the job's life: slow, quick, slow. */
function done(line: Pick<Line, 'from' | 'to'>, life: number): number {
  const x = Math.min(1, Math.max(0, (life - line.from) / (line.to - line.from)));
  return x * x * (3 - 2 * x);
}

const lifeAt = (job: SampleJob, index: number) => Math.min(1, (index - job.starts + 1) / job.months);

function writeJob(job: SampleJob): void {
  const { retention: r } = job;
  const awarded = job.awarded < 0 ? '' : dayIn(job.awarded, 6);
  add('jobs', {
    job: job.job, name: job.name, customer: job.customer, contract_reference: job.contract, status: job.status, awarded_on: awarded, starts_on: dayIn(job.starts, 11),
    finishes_on: lastDay(month(job.starts + job.months - 1)), finished_on: job.finished === undefined ? '' : dayIn(job.finished, 20), manager: job.manager, site: job.site, revenue_method: job.method ?? '',
    retention_percent: r.percent, retention_on_materials_percent: r.materials ?? '', retention_step_at_percent: r.stepAt ?? '', retention_step_to_percent: r.stepTo ?? '', retention_step_applies: r.applies ?? '',
    retention_cap_percent: r.cap ?? '', tax_percent: '', terms_days: job.terms ?? '',
  });
  const lines = linesOf(job);
  for (const line of lines) {
    add('schedule_of_values', { job: job.job, sov_line: line.sov, section: line.section, description: line.description, scheduled_value: money(line.value), quantity: '', unit: '', retention_percent: '' });
    for (const cost of line.costs) {
      const budget = Math.round(cost.amount / 10) * 10;
      add('budget', { job: job.job, section: line.section, cost_code: cost.code, cost_type: cost.type, sov_line: line.sov, description: line.description, quantity: '', unit: '', hours: cost.type === 'labour' ? Math.round(budget / LABOUR_RATE) : '', amount: money(budget) });
    }
  }
  if (job.status === 'tender') return;
  writeCommitments(job, lines);
  for (let index = Math.max(0, job.starts); index < MONTHS; index++) writeCosts(job, lines, index);
  writeBilling(job, lines);
}

const ordered = new Map<string, { line: string }>();

/** Subcontracts for what is let, and purchase orders for the big deliveries. */
function writeCommitments(job: SampleJob, lines: readonly Line[]): void {
  let count = 0;
  for (const line of lines) {
    for (const cost of line.costs) {
      const big = cost.type === 'subcontract' || (cost.type === 'material' && cost.amount > 90_000);
      if (!big || job.starts + 1 >= MONTHS) continue;
      const vendor = PARTIES[`${cost.code} ${cost.type}`] ?? 'PURLINPIKE';
      const kind = cost.type === 'subcontract' ? 'subcontract' : 'purchase-order';
      const commitment = `${kind === 'subcontract' ? 'SC' : 'PO'}-${job.job}-${String(++count).padStart(2, '0')}`;
      const runs = job.runs?.[cost.type as 'material'] ?? 1;
      add('commitments', { commitment, kind, vendor, dated: dayIn(Math.max(job.starts, 0), 14), job: job.job, line: '1', section: line.section, cost_code: cost.code, cost_type: cost.type, description: line.description, quantity: '', unit: '', amount: money(Math.round((cost.amount * runs) / 100) * 100), retention_percent: kind === 'subcontract' ? 3 : '', closed_on: job.finished === undefined ? '' : dayIn(job.finished, 28) });
      ordered.set(`${job.job} ${line.sov} ${cost.type}`, { line: commitment });
    }
  }
}

function writeCosts(job: SampleJob, lines: readonly Line[], index: number): void {
  if (job.finished !== undefined && index > job.finished) return;
  for (const line of lines) {
    const share = done(line, lifeAt(job, index)) - done(line, lifeAt(job, index - 1));
    if (share <= 0) continue;
    for (const cost of line.costs) {
      const runs = job.runs?.[cost.type as 'labour'] ?? 1;
      const amount = cost.amount * share * runs * between(0.94, 1.05);
      const parts = cost.type === 'labour' ? (amount > 9000 ? 4 : 2) : amount > 40_000 ? 3 : 1;
      for (let part = 0; part < parts; part++) writeCost(job, line, cost, index, amount / parts, part, parts);
    }
  }
}

let delivery = 40_100;

function writeCost(job: SampleJob, line: Line, cost: Line['costs'][number], index: number, share: number, part: number, parts: number): void {
  const amount = share * between(0.9, 1.1);
  if (amount < 5) return;
  const labour = cost.type === 'labour';
  const committed = ordered.get(`${job.job} ${line.sov} ${cost.type}`);
  const dated = dayIn(index, Math.min(27, 4 + Math.round(((part + 0.6) * 24) / parts)));
  add('costs', {
    dated, job: job.job, section: line.section, cost_code: cost.code, cost_type: cost.type, reference: labour ? `TS-${month(index).slice(2).replace('-', '')}-${part + 1}` : `DN-${++delivery}`,
    party: labour ? CREWS[Math.floor(random() * CREWS.length)]! : (PARTIES[`${cost.code} ${cost.type}`] ?? PARTIES[cost.type] ?? 'SLATEWRIGHT'), description: line.description, quantity: '',
    hours: labour ? (Math.round((amount / LABOUR_RATE) * 4) / 4).toFixed(2) : '', amount: money(amount), commitment: committed?.line ?? '', commitment_line: committed ? '1' : '', uninstalled: '', installed_on: '',
  });
}

function writeBilling(job: SampleJob, lines: readonly Line[]): void {
  let number = 0;
  let billed = new Map<string, number>();
  for (let index = job.starts; index < MONTHS && index <= (job.finished ?? MONTHS); index++) {
    if (index < job.awarded + 1) continue;
    const life = lifeAt(job, index);
    const stated = new Map<string, number>();
    for (const line of lines) {
      const ahead = done(line, life) <= 0 ? 0 : (job.billsAhead ?? 0);
      const final = job.finished !== undefined && index >= job.finished;
      const omitted = job.job === '2104' && line.sov === '8' ? 24_500 : 0;
      const wanted = final ? line.value : Math.floor((line.value * Math.min(1, Math.max(0, done(line, life) + ahead))) / 50) * 50;
      stated.set(line.sov, Math.min(line.value - omitted, Math.max(billed.get(line.sov) ?? 0, wanted)));
    }
    const total = [...stated.values()].reduce((a, b) => a + b, 0);
    if (total === 0 || total === [...billed.values()].reduce((a, b) => a + b, 0)) continue;
    number += 1;
    const last = index === MONTHS - 1;
    const status = !last ? 'certified' : ['2104', '2108', '2113'].includes(job.job) ? 'certified' : ['2105', '2114'].includes(job.job) ? 'draft' : 'submitted';
    add('applications', { job: job.job, application: number, dated: dayIn(index, 22), status, certified_on: status === 'certified' ? dayIn(index, 28) : '', reference: `${job.contract}/A${number}` });
    for (const line of lines) {
      const work = stated.get(line.sov)!;
      const materials = job.job === '2104' && line.description === 'Glass units' && work < line.value * 0.5 && life > 0.5 ? Math.min(60_000, Math.floor((line.value - work) / 1000) * 500) : 0;
      if (work === 0 && materials === 0 && !billed.has(line.sov)) continue;
      const cutShort = job.job === '2108' && line.sov === '4' && index >= MONTHS - 3 && work > 20_000;
      add('application_lines', { job: job.job, application: number, sov_line: line.sov, work_to_date: money(work), materials_on_site: materials ? money(materials) : '', certified_work_to_date: cutShort ? money(work - 18_500) : '', certified_materials_on_site: '' });
    }
    billed = new Map([...stated].filter(([line, work]) => work > 0 || billed.has(line)));
    if (status === 'certified' && job.paysAfter !== null) planReceipt(job, number, dayIn(index, 28));
  }
}

/** Receipts need what the application asks for; they are filled in once the book can be worked out. */
const receipts: { job: string; application: string; on: string; part: number }[] = [];

function planReceipt(job: SampleJob, number: number, certified: string): void {
  const on = addDays(certified, job.paysAfter! + Math.floor(between(-3, 4)));
  if (on > lastDay(month(MONTHS - 1))) return;
  receipts.push({ job: job.job, application: String(number), on, part: job.job === '2108' && number % 4 === 0 ? 0.9 : 1 });
}

function writeSpecials(): void {
  const order = (row: Row, lines: Row[]) => {
    add('change_orders', { issued_on: '', decided_on: '', reference: '', ...row });
    for (const line of lines) add('change_order_lines', { sov_line: '', description: '', section: '', cost_code: '', cost_type: '', quantity: '', unit: '', hours: '', ...line, job: row.job!, change_order: row.change_order! });
  };
  order({ job: '2101', change_order: 'CO1', title: 'Extra rooflights to unit 7', status: 'approved', raised_on: '2030-03-04', issued_on: '2030-03-06', decided_on: '2030-03-20', reference: 'ORP-0457/V1' }, [
    { side: 'price', sov_line: '10', description: 'Rooflights, unit 7', section: 'Roof', amount: '38400.00' },
    { side: 'cost', section: 'Roof', cost_code: '0340', cost_type: 'material', amount: '21500.00' }, { side: 'cost', section: 'Roof', cost_code: '0340', cost_type: 'labour', hours: '190', amount: '6555.00' }]);
  order({ job: '2104', change_order: 'CO1', title: 'Omit louvres at stair tower 2', status: 'approved', raised_on: '2030-08-12', issued_on: '2030-08-14', decided_on: '2030-09-02', reference: 'QD/M1/22-V3' }, [
    { side: 'price', sov_line: '8', amount: '-24500.00' }, { side: 'cost', section: 'Stair towers', cost_code: '0430', cost_type: 'material', amount: '-15200.00' }]);
  order({ job: '2105', change_order: 'CO1', title: 'Fire barriers to level 3', status: 'approved', raised_on: '2030-11-05', issued_on: '2030-11-08', decided_on: '2030-12-03', reference: 'MHT-C-031/04' }, [
    { side: 'price', sov_line: '10', description: 'Fire barriers, level 3', section: 'Level 1–4', amount: '86250.00' }, { side: 'cost', section: 'Level 1–4', cost_code: '0410', cost_type: 'material', amount: '41200.00' }, { side: 'cost', section: 'Level 1–4', cost_code: '0410', cost_type: 'labour', hours: '640', amount: '22080.00' }]);
  order({ job: '2110', change_order: 'CO1', title: 'Solar control glass to south elevation', status: 'issued', raised_on: '2031-02-10', issued_on: '2031-02-17' }, [
    { side: 'price', sov_line: '6', description: 'Solar control glass, south elevation', section: 'Atrium', amount: '212000.00' }, { side: 'cost', section: 'Atrium', cost_code: '0440', cost_type: 'material', amount: '148000.00' }, { side: 'cost', section: 'Atrium', cost_code: '0440', cost_type: 'labour', hours: '310', amount: '10695.00' }]);
  order({ job: '2107', change_order: 'CO1', title: 'Night working at the sports hall', status: 'rejected', raised_on: '2031-01-09', issued_on: '2031-01-13', decided_on: '2031-02-04' }, [{ side: 'price', sov_line: '10', description: 'Night working', section: 'Sports hall', amount: '31500.00' }]);
  order({ job: '2114', change_order: 'CO1', title: 'Insulated upstands, block B', status: 'draft', raised_on: '2031-04-16' }, [{ side: 'price', sov_line: '8', amount: '9800.00' }, { side: 'cost', section: 'Block B', cost_code: '0320', cost_type: 'material', amount: '5900.00' }]);
  const cost = (row: Row) => add('costs', { section: '', party: '', description: '', quantity: '', hours: '', commitment: '', commitment_line: '', uninstalled: '', installed_on: '', ...row });
  // Cost already spent on the change the client has not approved: unbudgeted until then.
  cost({ dated: '2031-03-19', job: '2110', section: 'Atrium', cost_code: '0510', cost_type: 'material', reference: 'DN-50211', party: 'GLIMMER', description: 'Solar control samples and moulds, CO1', amount: '18640.00' });
  cost({ dated: '2031-04-09', job: '2110', section: 'Atrium', cost_code: '0510', cost_type: 'labour', reference: 'TS-3104-6', party: 'Crew Dray', description: 'Survey for CO1', hours: '86', amount: '2967.00' });
  // Glass bought ahead and stored: cost to date, not yet work done.
  cost({ dated: '2031-04-14', job: '2110', section: 'Atrium', cost_code: '0440', cost_type: 'material', reference: 'DN-50240', party: 'GLIMMER', description: 'Glass units, stored at works', amount: '164300.00', uninstalled: 'yes' });
  cost({ dated: '2031-02-12', job: '2110', section: 'Atrium', cost_code: '0430', cost_type: 'material', reference: 'DN-50140', party: 'GLIMMER', description: 'Transoms, stored at works', amount: '38700.00', uninstalled: 'yes', installed_on: '2031-04-08' });
  cost({ dated: '2031-02-26', job: '2107', section: 'Sports hall', cost_code: '0610', cost_type: 'labour', reference: 'TS-3102-9', party: 'Crew Benning', description: 'Making good, not in the budget', hours: '64', amount: '2208.00' });
  const forecast = (job: string, as_of: string, section: string, cost_code: string, cost_type: string, method: string, value: string, note: string) => add('forecasts', { job, as_of, section, cost_code, cost_type, method, value, note });
  forecast('2107', '2031-03-31', 'Sports hall', '0340', 'labour', 'hours', '820', 'Crew slower than priced; two more weeks');
  forecast('2107', '2031-03-31', 'Teaching block', '0330', 'labour', 'hours', '460', 'Same rate as the sports hall');
  forecast('2108', '2031-03-31', 'Levels 0–6', '0420', 'material', 'percent', '72', 'Panels at the new price');
  forecast('2108', '2031-04-30', 'Podium', '0430', 'subcontract', 'to-complete', '118000.00', 'Frames still to be let, at tender');
  forecast('2105', '2031-04-30', 'Level 1–4', '0410', 'labour', 'percent', '58.5', 'Measured on site');
}

/** Receipts and releases, from what the books themselves say each application asks for. */
async function writeMoney(): Promise<void> {
  const { loadBillingOfFolder } = await import('./payables');
  const asked = await loadBillingOfFolder('demo/book');
  for (const receipt of receipts) {
    const payable = asked.payable(receipt.job, Number(receipt.application));
    if (payable > 0) add('receipts', { dated: receipt.on, job: receipt.job, application: receipt.application, amount: money((Math.round(payable * receipt.part) / 100)), reference: `BACS ${receipt.on.slice(2).replaceAll('-', '')}` });
  }
  const held = asked.held('2098', '2030-08-31');
  add('retention_releases', { job: '2098', dated: '2030-09-10', amount: money(held / 200), reference: 'Half at completion' });
  add('retention_releases', { job: '2098', dated: '2031-02-26', amount: money((held - Math.round(held / 2)) / 100), reference: 'End of defects' });
  add('receipts', { dated: '2030-10-08', job: '2098', application: 'Half at completion', amount: money((Math.round(held / 2) * 1.2) / 100), reference: 'BACS 301008' });
  add('receipts', { dated: '2031-03-25', job: '2098', application: 'End of defects', amount: money(((held - Math.round(held / 2)) * 1.2) / 100), reference: 'BACS 310325' });
}

function save(): void {
  mkdirSync('demo/book', { recursive: true });
  book.costs.sort((a, b) => (a.dated! < b.dated! ? -1 : a.dated! > b.dated! ? 1 : 0));
  book.receipts.sort((a, b) => (a.dated! < b.dated! ? -1 : a.dated! > b.dated! ? 1 : 0));
  for (const [file, rows] of Object.entries(book)) {
    const names = Object.keys(BOOK_FILES[file as BookFileName]);
    writeFileSync(`demo/book/${file}.csv`, csvText([names, ...rows.map((row) => names.map((name) => String(row[name] ?? '')))]));
  }
}

add('company', { name: 'Brackenfell Envelope Ltd', currency: 'GBP', tax_name: 'VAT', tax_percent: 20, year_start_month: 11, address: 'Gable Works, Brackenfell' });
for (const [customer, name, contact, email, phone, address, terms_days] of CUSTOMERS) add('customers', { customer, name, contact, email, phone, address, terms_days });
for (const [vendor, name, kind] of VENDORS) add('vendors', { vendor, name, kind, contact: '', email: '', phone: '', address: '', terms_days: 30 });
for (const [cost_code, description, unit] of COST_CODES) add('cost_codes', { cost_code, description, unit });
SAMPLE_JOBS.forEach(writeJob);
writeSpecials();
save();
await writeMoney();
save();
