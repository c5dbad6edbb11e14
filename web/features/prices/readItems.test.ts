import { expect, test } from '@jest/globals';
import type { PriceItemInput } from '../../../wire/prices';
import { itemCodecs, itemRow, readItems } from './readItems';

const item = (more: Partial<PriceItemInput>): PriceItemInput => ({
  code: 'A',
  description: 'A',
  unit: 'm2',
  costType: 'material',
  costCode: '200',
  wageClass: '',
  unitCost: 123_456,
  markup: null,
  vendor: '',
  checkedOn: null,
  ...more,
});
const books = [
  item({}),
  item({
    code: 'B',
    costType: 'labour',
    unit: 'h',
    wageClass: 'Roofer',
    unitCost: 345_000,
    markup: 150_000,
    vendor: 'V',
    checkedOn: '2031-04-01',
  }),
];
const codecs = itemCodecs({ month: '2031-04', costCodes: new Set(['200']), vendors: new Set(['V']), digits: 2 });
const rows = () => books.map((it) => itemRow(it, codecs));

test('items shown and left alone have not changed; one that did is told with its row', () => {
  expect(readItems(rows(), books, codecs)).toEqual({ faults: new Map(), changed: [] });
  const [a, b] = rows();
  const { changed, faults } = readItems(
    [a!, {}, { ...b!, unitCost: '35' }, { code: 'C', description: 'C', costType: 'lab', costCode: '200', unitCost: '1,250.5' }],
    books,
    codecs,
  );
  expect([...faults]).toEqual([]);
  expect(changed.map((it) => [it.row, it.item.code, it.item.unitCost, it.item.unit])).toEqual([
    [2, 'B', 350_000, 'h'],
    [3, 'C', 12_505_000, 'h'],
  ]);
});

test('each cell says what is missing or wrong', () => {
  const { faults } = readItems(
    [
      { code: 'X', description: '', costType: 'x', costCode: '', unitCost: '' },
      {
        code: 'X',
        description: 'd',
        costType: 'other',
        costCode: '9',
        unitCost: '-1',
        markup: '2000',
        vendor: 'W',
        checkedOn: 'soon',
      },
    ],
    books,
    codecs,
  );
  expect([...faults.keys()].sort()).toEqual(
    [
      '0.costCode',
      '0.description',
      '0.costType',
      '0.unitCost',
      '1.checkedOn',
      '1.code',
      '1.costCode',
      '1.markup',
      '1.unitCost',
      '1.vendor',
    ].sort(),
  );
});
