import { MINUS } from '../money/display';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { SovLine } from '../contract/contract';
import { planCertification } from './certification';
import { retentionHeld, valueApplication, type Application, type BilledLine, type BillingJob } from './application';
import { overbillings, overbillingText } from './overbilling';
import { ageInvoices, type OpenInvoice } from './ageing';

const sov = (line: string, scheduledValue: number, original = true): SovLine => ({
  line,
  section: '',
  description: line,
  scheduledValue,
  quantity: null,
  unit: '',
  retentionRate: null,
  original,
});
const billed = (line: string, work: number, more: Partial<BilledLine> = {}): BilledLine => ({
  line,
  work,
  materials: 0,
  certifiedWork: null,
  certifiedMaterials: null,
  ...more,
});
const application = (number: number, dated: string, lines: BilledLine[], more: Partial<Application> = {}): Application => ({
  number,
  dated,
  status: 'certified',
  certifiedOn: dated,
  reference: '',
  lines,
  ...more,
});
const job = (applications: Application[], more: Partial<BillingJob> = {}): BillingJob => ({
  sovLines: [sov('1', 600_000), sov('2', 400_000), sov('3', 0, false)],
  priceChanges: [{ changeOrder: 'CO1', line: '3', amount: 100_000, approvedOn: '2031-03-10' }],
  retention: { rate: 50_000, materialsRate: null, step: null, cap: null },
  taxRate: 200_000,
  applications,
  releases: [],
  ...more,
});

describe('an application', () => {
  // 1: work 2,000.00, materials 300.00 on line 1. 2: line 1 for 4,000.00, line 2 for 1,000.00, of which 900.00 is certified.
  const one = application(1, '2031-01-31', [billed('1', 200_000, { materials: 30_000 })]);
  const two = application(2, '2031-02-28', [billed('1', 400_000), billed('2', 100_000, { certifiedWork: 90_000 })]);

  test('is stated to date, and asks for what is new: worked by hand', () => {
    const it = valueApplication(job([one, two]), two, '2031-12-31');
    // Net 1: 2,300.00 − 5 % = 2,185.00. Net 2: 4,900.00 − 245.00 = 4,655.00. Due 2,470.00, tax 494.00.
    expect(it).toMatchObject({
      work: 490_000,
      materials: 0,
      gross: 490_000,
      net: 465_500,
      previouslyCertified: 218_500,
      due: 247_000,
      tax: 49_400,
      payable: 296_400,
      balanceToComplete: 534_500,
    });
    expect(it.retention.total).toBe(24_500);
    expect(it.lines.map((line) => [line.line, line.previousWork, line.thisPeriod, line.toDate])).toEqual([
      ['1', 200_000, 200_000, 400_000],
      ['2', 0, 90_000, 90_000],
    ]);
  });

  test('shows what was applied for until it is certified, and what was certified afterwards', () => {
    const later = { ...two, certifiedOn: '2031-03-15' };
    expect(valueApplication(job([one, later]), later, '2031-03-14').work).toBe(500_000);
    expect(valueApplication(job([one, later]), later, '2031-03-15').work).toBe(490_000);
  });

  test('is valued with the contract of its own date: the change of 10 March is not in February', () => {
    const three = application(3, '2031-03-31', [billed('1', 400_000), billed('2', 100_000), billed('3', 50_000)]);
    expect(valueApplication(job([one, two, three]), two, '2031-12-31')).toMatchObject({
      contractSum: 1_000_000,
      balanceToComplete: 534_500,
    });
    expect(valueApplication(job([one, two, three]), three, '2031-12-31')).toMatchObject({
      contractSum: 1_100_000,
      originalContractSum: 1_000_000,
    });
  });

  test('released retention comes off the balance by its own date and never off what is due', () => {
    const releases = [
      { reference: 'Half', dated: '2031-02-28', amount: 10_000 },
      { reference: 'Rest', dated: '2031-03-01', amount: 500 },
    ];
    const it = valueApplication(job([one, two], { releases }), two, '2031-12-31');
    expect([it.retentionReleased, it.due, it.balanceToComplete]).toEqual([10_000, 247_000, 524_500]);
    expect(retentionHeld(job([one, two], { releases }), '2031-03-31')).toBe(24_500 - 10_500);
  });

  test('posts the change since the last one: receivable and retention against billings and tax', () => {
    const { journal } = planCertification(job([one]), two);
    // Billings 4,900.00 − 2,300.00 = 2,600.00; retention 245.00 − 115.00 = 130.00; receivable 2,964.00; tax 494.00.
    expect(journal.lines).toEqual([
      { account: '1100', debit: 296_400, credit: 0 },
      { account: '1150', debit: 13_000, credit: 0 },
      { account: '4000', debit: 0, credit: 260_000 },
      { account: '2200', debit: 0, credit: 49_400 },
    ]);
  });
});

test('to date never drifts: what all applications asked for is the net of the last, whatever was billed between', () => {
  const rate = fc.integer({ min: 0, max: 200_000 });
  const steps = fc.array(
    fc.record({ one: fc.nat(600_000), two: fc.nat(400_000), site: fc.nat(5000), cut: fc.option(fc.nat(300_000)) }),
    { minLength: 1, maxLength: 9 },
  );
  fc.assert(
    fc.property(steps, rate, fc.option(rate), (its, own, cap) => {
      const applications = its.map(({ one, two, site, cut }, i) =>
        application(i + 1, `2031-${String(i + 1).padStart(2, '0')}-15`, [
          billed('1', one, { certifiedWork: cut }),
          billed('2', two, { materials: site }),
        ]),
      );
      const it = job(applications, { retention: { rate: own, materialsRate: null, step: null, cap } });
      const valued = applications.map((one) => valueApplication(it, one, '2031-12-31'));
      expect(valued.reduce((sum, one) => sum + one.due, 0)).toBe(valued.at(-1)!.net);
      for (const one of valued) expect(one.lines.reduce((sum, line) => sum + line.retention, 0)).toBe(one.retention.total);
    }),
  );
});

describe('overbilling', () => {
  test('stands on the work where work alone passes, else on the materials', () => {
    expect(overbillings(billed('1', 1001), 1000)).toEqual([{ line: '1', figure: 'work', by: 1, limit: 1000 }]);
    expect(overbillings(billed('1', 900, { materials: 150 }), 1000)).toEqual([
      { line: '1', figure: 'materials', by: 50, limit: 1000 },
    ]);
    expect(overbillings(billed('1', 1000), 1000)).toEqual([]);
  });

  test('a credit line goes the other way, and not beyond itself', () => {
    expect(overbillings(billed('1', -500), -1000)).toEqual([]);
    expect(overbillings(billed('1', -1001), -1000)[0]).toMatchObject({ figure: 'work', by: 1 });
    expect(overbillings(billed('1', 1), -1000)[0]).toMatchObject({ by: 1 });
    const said = (work: number, scheduled: number) => overbillingText(overbillings(billed('1', work), scheduled)[0]!, work, 2);
    expect([said(100_100, 100_000), said(-10_000, 100_000), said(10_000, -100_000)]).toEqual([
      'Line 1 would pass its scheduled value by 1.00. Bill 1,000.00 or less to date',
      'Line 1 would be billed 100.00 below zero. Bill between 0.00 and 1,000.00 to date',
      `Line 1 is a credit and would be billed 100.00 above zero. Bill between ${MINUS}1,000.00 and 0.00 to date`,
    ]);
    // A currency without decimals has none here either.
    expect(overbillingText(overbillings(billed('1', -5), 100)[0]!, -5, 0)).toContain('Bill between 0 and 100 to date');
  });

  test('certified figures are held to it alike, each with the applied one where it is empty', () => {
    expect(overbillings(billed('1', 900, { certifiedWork: 1100 }), 1000)).toEqual([
      { line: '1', figure: 'certifiedWork', by: 100, limit: 1000 },
    ]);
    expect(overbillings(billed('1', 900, { certifiedMaterials: 200 }), 1000)).toEqual([
      { line: '1', figure: 'certifiedMaterials', by: 100, limit: 1000 },
    ]);
  });
});

test('ageing counts from the day after the due day; nothing open and nothing held is left out', () => {
  const invoice = (invoice: string, more: Partial<OpenInvoice>): OpenInvoice => ({
    client: 'C',
    job: 'J',
    invoice,
    kind: 'application',
    dated: '2031-01-20',
    dueOn: '2031-02-28',
    payable: 1000,
    received: 0,
    retentionHeld: 0,
    ...more,
  });
  // Due 28 February 2031 (certified on 31 January, 28 days): on the day itself not late, on 1 March one day, on 30 March thirty, on 31 March thirty-one.
  const band = (asOf: string) => {
    const [it] = ageInvoices([invoice('1', {})], asOf);
    return (['notDue', 'days1To30', 'days31To60', 'days61To90', 'daysOver90'] as const).find((key) => it![key] !== 0);
  };
  expect(
    ['2031-02-28', '2031-03-01', '2031-03-30', '2031-03-31', '2031-04-29', '2031-04-30', '2031-05-29', '2031-05-30'].map(band),
  ).toEqual(['notDue', 'days1To30', 'days1To30', 'days31To60', 'days31To60', 'days61To90', 'days61To90', 'daysOver90']);
  const aged = ageInvoices(
    [
      invoice('10', {}),
      invoice('9', {}),
      invoice('Half', { kind: 'release' }),
      invoice('8', { received: 1000 }),
      invoice('7', { received: 1000, retentionHeld: 5 }),
    ],
    '2031-03-01',
  );
  expect(aged.map((it) => [it.invoice, it.total])).toEqual([
    ['7', 5],
    ['9', 1000],
    ['10', 1000],
    ['Half', 1000],
  ]);
});
