import fc from 'fast-check';
import { addDays } from '../../core/calendar/plainDate';
import { COST_TYPES } from '../../core/costs/costType';
import { csvText } from '../reportFiles/reportCsv';
import { BOOK_FILES } from '../book/bookFiles';
import type { Rows } from './secondCalculation';

const START = '2031-01-01';
const day = fc.nat(300).map((n) => addDays(START, n));
const amount = (low: number, high: number) => fc.integer({ min: low, max: high }).map((n) => (n / 100).toFixed(2));
const percent = fc.oneof(
  fc.constantFrom('5', '0', '2.5', '10', '33.3333'),
  fc.integer({ min: 0, max: 400_000 }).map((n) => (n / 10_000).toString()),
);
const maybe = (it: fc.Arbitrary<string>) => fc.oneof(fc.constant(''), it);
const key = fc.record({
  section: fc.constantFrom('', 'A', 'B'),
  cost_code: fc.constantFrom('100', '200'),
  cost_type: fc.constantFrom(...COST_TYPES),
});

const facts = fc.record({
  revenue_method: fc.constantFrom('', 'cost-to-cost', 'hours', 'physical', 'completed'),
  finished_on: maybe(day),
  retention_percent: maybe(percent),
  retention_on_materials_percent: maybe(percent),
  retention_step_at_percent: maybe(fc.constantFrom('0', '25', '50', '60.5')),
  retention_step_to_percent: maybe(percent),
  retention_step_applies: fc.constantFrom('', 'all', 'further'),
  retention_cap_percent: maybe(fc.constantFrom('1', '3', '4.25')),
  tax_percent: maybe(fc.constantFrom('0', '5', '17.5')),
  terms_days: maybe(fc.constantFrom('0', '14', '45')),
});

const shape = fc.record({
  facts,
  sov: fc.array(fc.record({ value: amount(100, 9_000_000), retention: maybe(percent) }), { minLength: 1, maxLength: 5 }),
  budget: fc.array(fc.record({ key, amount: amount(0, 4_000_000), hours: maybe(fc.constantFrom('10', '80.5', '0.25')) }), {
    maxLength: 8,
  }),
  changes: fc.array(
    fc.record({
      on: day,
      status: fc.constantFrom('approved', 'approved', 'issued', 'rejected', 'withdrawn'),
      line: fc.nat(7),
      price: amount(-50_000, 900_000),
      key,
      cost: amount(-100_000, 500_000),
      hours: maybe(fc.constantFrom('4', '12.5')),
    }),
    { maxLength: 4 },
  ),
  transfers: fc.array(
    fc.record({ on: day, from: key, to: key, amount: amount(-300_000, 300_000), hours: maybe(fc.constant('2.5')) }),
    {
      maxLength: 3,
    },
  ),
  commitments: fc.array(fc.record({ on: day, key, amount: amount(0, 900_000), closed: maybe(fc.constant('x')) }), {
    maxLength: 3,
  }),
  costs: fc.array(
    fc.record({
      on: day,
      key,
      amount: amount(-100_000, 900_000),
      hours: maybe(fc.constantFrom('8', '3.75', '40')),
      order: fc.nat(5),
      stored: fc.boolean(),
      installed: maybe(fc.constant('x')),
      late: maybe(fc.constantFrom('1', '20', '45')),
    }),
    { maxLength: 25 },
  ),
  forecasts: fc.array(
    fc.record({
      on: day,
      key,
      method: fc.constantFrom('to-complete', 'percent', 'hours'),
      value: fc.constantFrom('0', '12.5', '40', '99.99'),
    }),
    { maxLength: 5 },
  ),
  applications: fc.array(
    fc.record({
      gap: fc.integer({ min: 0, max: 60 }),
      wait: fc.integer({ min: 0, max: 20 }),
      shares: fc.array(fc.record({ work: fc.nat(100), materials: fc.nat(30), cut: fc.option(fc.nat(100)) }), {
        minLength: 8,
        maxLength: 8,
      }),
    }),
    { maxLength: 4 },
  ),
  uncertified: fc.constantFrom('submitted', 'draft', 'certified'),
  paid: fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 4, maxLength: 4 }),
});

/** Books of one job that the format takes: random, but in order. Receipts are added where `asked` says what is payable. */
export const randomBook: fc.Arbitrary<Rows> = shape.map((it) => {
  const job = 'J1';
  const lines = it.sov.map((line, i) => ({
    job,
    sov_line: String(i + 1),
    description: 'x',
    scheduled_value: line.value,
    retention_percent: line.retention,
  }));
  const orders = it.changes.map((change, i) => ({
    job,
    change_order: `C${i + 1}`,
    title: 't',
    status: change.status,
    raised_on: START,
    decided_on: change.status === 'issued' ? '' : change.on,
  }));
  const orderLines = it.changes.flatMap((change, i) => {
    const own =
      change.line < lines.length
        ? { sov_line: String(change.line + 1), description: '', amount: change.price.replace('-', '') }
        : { sov_line: `N${change.line}`, description: 'new', amount: change.price.replace('-', '') };
    return [
      { job, change_order: `C${i + 1}`, side: 'price', ...own },
      { job, change_order: `C${i + 1}`, side: 'cost', ...change.key, amount: change.cost, hours: change.hours },
    ];
  });
  const rows: Rows = {
    company: [{ name: 'Random Ltd', currency: 'GBP', tax_percent: '20' }],
    customers: [{ customer: 'C', name: 'C', terms_days: it.facts.terms_days === '' ? '21' : '' }],
    vendors: [{ vendor: 'V', name: 'V' }],
    cost_codes: [
      { cost_code: '100', description: 'a' },
      { cost_code: '200', description: 'b' },
    ],
    jobs: [{ job, name: 'Random', customer: 'C', status: 'on-site', awarded_on: START, ...wholeSteps(it.facts) }],
    schedule_of_values: lines,
    budget: it.budget.map((line) => ({ job, ...line.key, amount: line.amount, hours: line.hours })),
    change_orders: orders,
    change_order_lines: orderLines,
    budget_transfers: it.transfers.flatMap((line, i) => {
      const own = { job, transfer: String(i + 1), dated: line.on, reason: 'r', hours: line.hours };
      const back = line.amount.startsWith('-') ? line.amount.slice(1) : `-${line.amount}`;
      return [
        { ...own, ...line.from, amount: line.amount },
        { ...own, ...line.to, amount: back },
      ];
    }),
    commitments: it.commitments.map((line, i) => ({
      commitment: `P${i}`,
      kind: 'purchase-order',
      vendor: 'V',
      dated: line.on,
      job,
      line: '1',
      ...line.key,
      amount: line.amount,
      closed_on: line.closed && addDays(line.on, 90),
    })),
    costs: it.costs.map((line) => ({
      dated: line.on,
      job,
      ...line.key,
      reference: 'r',
      amount: line.amount,
      hours: line.hours,
      commitment: line.order < it.commitments.length ? `P${line.order}` : '',
      commitment_line: line.order < it.commitments.length ? '1' : '',
      uninstalled: isStored(line) ? 'yes' : '',
      installed_on: isStored(line) && line.installed ? addDays(line.on, 40) : '',
      posted_on: line.late ? addDays(line.on, Number(line.late)) : '',
    })),
    forecasts: [...new Map(it.forecasts.map((line) => [JSON.stringify([line.on, line.key]), line])).values()].map((line) => ({
      job,
      as_of: line.on,
      ...line.key,
      method: line.method,
      value: line.value,
    })),
  };
  addBilling(rows, it.applications, it.uncertified);
  return rows;
});

/** Labour is never stored on site. */
function isStored(line: { stored: boolean; key: { cost_type: string } }): boolean {
  return line.stored && line.key.cost_type !== 'labour';
}

/** A retention step has both its percentages, or none. */
function wholeSteps(own: Record<string, string>): Record<string, string> {
  if (own.retention_step_at_percent && own.retention_step_to_percent) return own;
  return { ...own, retention_step_at_percent: '', retention_step_to_percent: '', retention_step_applies: '' };
}

type Shares = { gap: number; wait: number; shares: { work: number; materials: number; cut: number | null }[] }[];

/** Applications in order: every line of the schedule on the day is stated, none beyond its value. */
function addBilling(rows: Rows, applications: Shares, last: string): void {
  const [job, ...names] = [
    'J1',
    ...new Set(
      [...rows.schedule_of_values!, ...rows.change_order_lines!.filter((it) => it.side === 'price')].map((it) => it.sov_line!),
    ),
  ];
  let [dated, certified] = [START, START];
  rows.applications = [];
  rows.application_lines = [];
  applications.forEach((application, i) => {
    dated = addDays(dated, application.gap);
    const proposed = addDays(dated, application.wait);
    certified = proposed > certified ? proposed : certified;
    const status = i === applications.length - 1 ? last : 'certified';
    rows.applications!.push({
      job,
      application: String(i + 1),
      dated,
      status,
      certified_on: status === 'certified' ? certified : '',
    });
    names.forEach((line, n) => {
      const value = scheduledOn(rows, line, dated);
      const part = (share: number) => ((value * share) / 10_000).toFixed(2);
      const { work, materials, cut } = application.shares[n % 8]!;
      const floor = (text: string) =>
        Math.floor(Number(text) * 100 - 0.5) / 100 > 0 ? (Math.floor(Number(text) * 100 - 0.5) / 100).toFixed(2) : '0.00';
      rows.application_lines!.push({
        job,
        application: String(i + 1),
        sov_line: line,
        work_to_date: floor(part(Math.min(work, 70))),
        materials_on_site: floor(part(materials * 0.9)),
        certified_work_to_date: status === 'certified' && cut !== null ? floor(part(Math.min(cut, 70))) : '',
        certified_materials_on_site: '',
      });
    });
  });
}

/** Scheduled value on a day, in pence. */
function scheduledOn(rows: Rows, line: string, on: string): number {
  const approved = rows
    .change_orders!.filter((it) => it.status === 'approved' && it.decided_on! <= on)
    .map((it) => it.change_order);
  const pence = (text: string | undefined) => Math.round(Number(text ?? 0) * 100);
  const original = rows.schedule_of_values!.find((it) => it.sov_line === line)?.scheduled_value;
  return rows
    .change_order_lines!.filter((it) => it.side === 'price' && it.sov_line === line && approved.includes(it.change_order))
    .reduce((sum, it) => sum + pence(it.amount), pence(original));
}

/** The rows as files. */
export function bookText(rows: Rows): Record<string, string> {
  return Object.fromEntries(
    Object.entries(rows)
      .filter(([, list]) => list.length > 0)
      .map(([file, list]) => {
        const columns = Object.keys(BOOK_FILES.find((it) => it.name === file)?.columns ?? {}).filter((column) =>
          list.some((row) => row[column] !== undefined),
        );
        return [file, csvText([columns, ...list.map((row) => columns.map((column) => row[column] ?? ''))])];
      }),
  );
}
