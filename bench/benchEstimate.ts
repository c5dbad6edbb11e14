import type { EstimateLine } from '../core/estimates/estimate';
import { LinePricer } from '../core/estimates/linePricer';
import { PriceList, type UnitShare } from '../core/prices/buildUp';
import { extend } from '../core/prices/unitCost';
import { formOf, readEstimate, type EstimateForm } from '../web/features/estimates/draft/estimateForm';

export const ESTIMATE_LINES = 5000;

/** An estimate of 5,000 lines, two thirds by build-ups of six cost lines, and its form as typed. */
function largeEstimate(): { form: EstimateForm; prices: ReadonlyMap<string, readonly UnitShare[]> } {
  const types = ['labour', 'material', 'subcontract', 'equipment', 'other', 'material'] as const;
  const items = types.map((costType, i) => ({
    code: `I${i}`,
    description: '',
    unit: '',
    costType,
    costCode: String(100 + i),
    unitCost: 12_345 + i,
    markup: i === 5 ? 100_000 : null,
  }));
  const buildUps = Array.from({ length: 40 }, (_, i) => ({
    code: `B${i}`,
    description: '',
    unit: 'm2',
    components: items.map((it) => ({ item: it.code, buildUp: '', quantity: 10_000 + i, waste: 50_000 })),
  }));
  const book = new PriceList(items, buildUps);
  const lines = Array.from({ length: ESTIMATE_LINES }, (_, i): EstimateLine => ({
    line: String(i + 1),
    section: `S${i % 20}`,
    description: `Line ${i + 1}`,
    quantity: 123_456 + i,
    unit: 'm2',
    markup: null,
    buildUp: i % 3 === 2 ? '' : `B${i % 40}`,
    parts:
      i % 3 === 2
        ? [
            {
              item: '',
              description: '',
              costCode: '100',
              costType: 'labour',
              basis: 'per-unit',
              quantity: 5_000,
              unit: 'h',
              unitCost: 345_000,
              markup: null,
            },
          ]
        : [],
  }));
  const content = {
    name: 'Large',
    lines,
    typeMarkups: { labour: 100_000 },
    sectionMarkups: { S3: 150_000 },
    overhead: 60_000,
    profit: 50_000,
    rounding: 0,
  };
  return { form: formOf(content, 2), prices: new Map(buildUps.map(({ code }) => [code, book.unitShares(code)])) };
}

/** What the browser does at every cell that is left: reads the changed row, prices all lines; and the bare multiplications of it. */
export function estimateWork(): { edit: () => Promise<void>; firstReading: () => Promise<void>; bare: () => Promise<void> } {
  const { form, prices } = largeEstimate();
  const context = { digits: 2, costCodes: new Set(['100', '101', '102', '103', '104', '105']), buildUps: prices };
  let now = form;
  let turn = 0;
  const kept = new LinePricer(2);
  const work = (it: EstimateForm, of: typeof context, pricer: LinePricer) => {
    const { content } = readEstimate(it, of);
    if (pricer.price({ ...content, prices }).totals.price <= 0) throw new Error('nothing was priced');
  };
  const products = readEstimate(form, context).content.lines.flatMap((line) =>
    (prices.get(line.buildUp) ?? []).map((share) => [line.quantity, share.cost] as const),
  );
  return {
    edit: async () => {
      const at = turn++ % ESTIMATE_LINES;
      now = { ...now, lines: now.lines.map((row, i) => (i === at ? { ...row, quantity: String(10 + turn) } : row)) };
      work(now, context, kept);
    },
    firstReading: async () => work(form, { ...context }, new LinePricer(2)),
    bare: async () => {
      let total = 0;
      for (const [quantity, cost] of products) total += extend(quantity, cost, 2);
      if (total <= 0) throw new Error('nothing was multiplied');
    },
  };
}
