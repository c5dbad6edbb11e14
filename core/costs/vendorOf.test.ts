import { expect, test } from '@jest/globals';
import { proposedCode, unknownVendors, vendorCode } from './vendorOf';

const vendors = [
  { code: 'SLATE', name: 'Slatewright Supplies' },
  { code: 'GLASS', name: 'Glimmerstone Glass' },
  { code: 'TWIN1', name: 'Twin' },
  { code: 'TWIN2', name: 'Twin' },
];

test('a vendor is named by code or by name, whatever the case; two of one name are none', () => {
  expect(['SLATE', 'slate', 'slatewright  SUPPLIES', 'Suplies', '', 'twin'].map((it) => vendorCode(it, vendors))).toEqual([
    ...['SLATE', 'SLATE', 'SLATE'],
    ...[null, null, null],
  ]);
});

test('who is paid for cost and is no vendor is listed once; who worked is not', () => {
  const lines = [
    { costType: 'material', party: 'Suplies' },
    { costType: 'subcontract', party: ' Suplies ' },
    { costType: 'labour', party: 'Crew Dray' },
    { costType: 'material', party: 'glimmerstone glass' },
    { costType: 'other', party: '' },
  ];
  expect(unknownVendors(lines, vendors)).toEqual(['Suplies']);
});

test('a code is proposed of the first word, the next one that is free', () => {
  expect(['Slate & Sons', 'Öre Timber', '---'].map((it) => proposedCode(it, vendors))).toEqual(['SLATE2', 'ÖRE', 'VENDOR']);
});
