import { expect, test } from '@jest/globals';
import { PriceList } from '../../../core/prices/buildUp';
import type { TypedChange } from '../../../wire/changes';
import { changeCodecs, formOf, pricedRows, readChange } from './changeForm';

const codecs = changeCodecs({ digits: 2, month: '2031-04', costCodes: new Set(['100', '200']) });
const sovLines = new Set(['1', '2']);
const view: TypedChange = {
  job: 'J1',
  jobName: 'Mill',
  number: 'CO1',
  title: 'Outlets',
  status: 'draft',
  raisedOn: '2031-04-02',
  issuedOn: null,
  decidedOn: null,
  reference: 'R1',
  reason: 'Asked',
  askedBy: 'Mr Hale',
  daysAsked: 4,
  daysGranted: null,
  decidedBy: '',
  decision: '',
  asked: 0,
  price: 0,
  cost: 0,
  hours: 0,
  version: 3,
  savedBy: '',
  savedAt: '',
  effect: null,
  priceLines: [
    { line: '1', section: '', description: '', quantity: null, unit: '', amount: -20_050, asked: null, isNew: false },
    {
      line: '9',
      section: 'B',
      description: 'Outlets',
      quantity: 25_000,
      unit: 'nr',
      amount: 1_300_000,
      asked: null,
      isNew: true,
    },
  ],
  costLines: [
    {
      section: 'B',
      costCode: '100',
      costType: 'labour',
      sovLine: '9',
      description: 'Fit',
      quantity: 20_000,
      unit: 'nr',
      hours: 15_000,
      amount: 4_875,
    },
  ],
};

test('a change shown is read back as it was, and its sides add up', () => {
  const read = readChange(formOf(view, codecs), 3, codecs, sovLines);
  expect([...read.faults]).toEqual([]);
  expect([read.price, read.cost]).toEqual([1_279_950, 4_875]);
  expect(read.input).toEqual({
    version: 3,
    number: 'CO1',
    title: 'Outlets',
    raisedOn: '2031-04-02',
    reference: 'R1',
    reason: 'Asked',
    askedBy: 'Mr Hale',
    daysAsked: 4,
    price: view.priceLines.map(({ asked: _asked, isNew: _isNew, ...it }) => it),
    cost: view.costLines,
  });
});

test('what is missing or wrong is said in its cell; an SOV line the change brings itself may be served', () => {
  const facts = { ...formOf(view, codecs).facts, number: '', raisedOn: 'soon', daysAsked: 'x' };
  const read = readChange(
    {
      facts,
      price: [{ line: '8', amount: '12,50' }, {}, { line: '8', description: 'again', amount: '5' }, { amount: '1' }],
      cost: [
        { costCode: '100', costType: 'lab', sovLine: '8', amount: '5' },
        { costCode: '777', costType: 'nothing', sovLine: '77', hours: 'h', amount: '' },
      ],
    },
    0,
    codecs,
    sovLines,
  );
  expect([...read.faults.keys()].sort()).toEqual([
    'cost.1.amount',
    'cost.1.costCode',
    'cost.1.costType',
    'cost.1.hours',
    'cost.1.sovLine',
    'facts.daysAsked',
    'facts.number',
    'facts.raisedOn',
    'price.0.amount',
    'price.0.description',
    'price.2.line',
    'price.3.line',
  ]);
});

test('so much of a build-up becomes cost by code and type, with hours, and a price at a markup', () => {
  const book = new PriceList(
    [
      { code: 'CREW', description: '', unit: 'h', costType: 'labour', costCode: '100', unitCost: 325_000, markup: null },
      { code: 'OUTLET', description: '', unit: 'nr', costType: 'material', costCode: '200', unitCost: 411_250, markup: null },
    ],
    [
      {
        code: 'FIT',
        description: 'Outlet fitted',
        unit: 'nr',
        components: [
          { item: 'CREW', buildUp: '', quantity: 7_500, waste: 0 },
          { item: 'OUTLET', buildUp: '', quantity: 10_000, waste: 100_000 },
        ],
      },
    ],
  );
  // One: 0.75 h × 32.50 = 24.375; 1.1 × 41.125 = 45.2375. Three: 73.125 → 73.13 in 2.25 h, 135.7125 → 135.71; 208.84 and 15 % of it, 31.33: 240.17.
  const rows = pricedRows(
    { description: 'Outlet fitted', unit: 'nr', section: 'B', sovLine: '9' },
    30_000,
    book.unitShares('FIT'),
    150_000,
    2,
  );
  expect(rows.price).toBe(24_017);
  expect(rows.cost.map((it) => [it.costCode, it.costType, it.hours, it.amount, it.quantity, it.sovLine])).toEqual([
    ['100', 'labour', '2.25', '73.13', '3', '9'],
    ['200', 'material', '', '135.71', '3', '9'],
  ]);
});
