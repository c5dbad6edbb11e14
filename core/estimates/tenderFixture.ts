import { PriceList, type BuildUp, type PriceItem } from '../prices/buildUp';
import { priceEstimate, type Estimate, type EstimateLine, type Part } from './estimate';

export const item = (
  code: string,
  costType: PriceItem['costType'],
  costCode: string,
  unitCost: number,
  more: Partial<PriceItem> = {},
): PriceItem => ({
  code,
  description: code,
  unit: costType === 'labour' ? 'h' : 'm2',
  costType,
  costCode,
  unitCost,
  markup: null,
  ...more,
});
export const component = (of: { item: string } | { buildUp: string }, quantity: number, waste = 0) => ({
  item: '',
  buildUp: '',
  ...of,
  quantity,
  waste,
});
export const buildUp = (code: string, ...components: BuildUp['components']): BuildUp => ({
  code,
  description: code,
  unit: 'm2',
  components,
});

export const ITEMS = [
  item('CREW', 'labour', '100', 325_000),
  item('MEMBRANE', 'material', '200', 142_500),
  item('FIXING', 'material', '200', 1_234),
  item('ADHESIVE', 'material', '200', 64_000, { markup: 150_000 }),
];
export const BUILD_UPS = [
  buildUp('BED', component({ item: 'ADHESIVE' }, 3_500, 50_000), component({ item: 'CREW' }, 200)),
  buildUp(
    'ROOF',
    component({ item: 'MEMBRANE' }, 10_000, 80_000),
    component({ item: 'FIXING' }, 45_000),
    component({ buildUp: 'BED' }, 11_000),
    component({ item: 'CREW' }, 1_800),
  ),
];
export const book = new PriceList(ITEMS, BUILD_UPS);

export const part = (more: Partial<Part>): Part => ({
  item: '',
  description: '',
  costCode: '100',
  costType: 'labour',
  basis: 'per-unit',
  quantity: 10_000,
  unit: '',
  unitCost: 0,
  markup: null,
  ...more,
});
export const line = (number: string, more: Partial<EstimateLine>): EstimateLine => ({
  line: number,
  section: 'A',
  description: `Line ${number}`,
  quantity: 10_000,
  unit: '',
  buildUp: '',
  markup: null,
  parts: [],
  ...more,
});
export const TENDER: Estimate = {
  lines: [
    line('1', { quantity: 1_375_000, unit: 'm2', buildUp: 'ROOF' }),
    line('2', {
      markup: 125_000,
      parts: [part({ costCode: '300', costType: 'subcontract', basis: 'in-all', unitCost: 12_000_000 })],
    }),
    line('3', {
      section: 'B',
      quantity: 100_000,
      parts: [
        part({ quantity: 7_500, unitCost: 325_000 }),
        part({ costCode: '400', costType: 'equipment', basis: 'in-all', quantity: 30_000, unitCost: 455_555 }),
      ],
    }),
  ],
  typeMarkups: { labour: 100_000, material: 80_000 },
  sectionMarkups: { B: 200_000 },
  overhead: 60_000,
  profit: 45_000,
  rounding: -3,
  prices: new Map(BUILD_UPS.map(({ code }) => [code, book.unitShares(code)])),
};
export const priced = priceEstimate(TENDER, 2);
