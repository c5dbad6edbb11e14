import { expect, test } from '@jest/globals';
import { budgetSays, proposeCoding, proposeType } from './proposeCoding';
import { withChosenItems } from './chosenItem';

const coding = (job: string, section: string, costCode: string, party: string, costType = 'material') => ({
  job,
  section,
  costCode,
  costType,
  party,
});
/** Posted, the newest first. */
const POSTED = [
  coding('2105', 'Roof', '0310', 'PANEL'),
  coding('2104', 'Podium', '0410', 'PANEL'),
  coding('2108', 'Podium', '0410', 'RAIL', 'subcontract'),
];
const at = (...rows: Record<string, string>[]) => proposeCoding(rows, rows.length - 1, POSTED);

test('job and section are proposed as of the last line of the same party and code, then of the party, then of the code', () => {
  expect(at({ party: 'PANEL', costCode: '0410' })).toMatchObject({ job: '2104', section: 'Podium' });
  expect(at({ party: 'PANEL', costCode: '0999' })).toMatchObject({ job: '2105', section: 'Roof' });
  expect(at({ party: 'NEW', costCode: '0410' })).toMatchObject({ job: '2104' });
  expect(at({ party: 'NEW' })).toBeNull();
  // Its own job stands: the section is one of that job.
  expect(at({ job: '2108', party: 'PANEL' })).toBeNull();
  expect(at({ job: '2108' })).toMatchObject({ section: 'Podium' });
});

test('what is typed above counts before what is posted; a line begun is proposed as the one above it, an empty one not', () => {
  const above = { job: '2111', section: 'Depot', party: 'PANEL', costCode: '0410' };
  expect(at(above, { party: 'PANEL', costCode: '0410' })).toMatchObject({ job: '2111', section: 'Depot' });
  expect(at(above, { dated: '28' })).toMatchObject({ job: '2111' });
  expect(at(above, {})).toBeNull();
});

test('the type is proposed as of the last line of party and code, then of the code, then of the party, whatever the job', () => {
  const typeAt = (...rows: Record<string, string>[]) => proposeType(rows, rows.length - 1, POSTED);
  expect(typeAt({ job: '2999', party: 'RAIL', costCode: '0410' })).toBe('subcontract');
  expect(typeAt({ party: 'NEW', costCode: '0410' })).toBe('material');
  expect(typeAt({ party: 'RAIL', costCode: '0999' })).toBe('subcontract');
  expect(typeAt({ party: 'PANEL', costCode: '0410', costType: 'other' }, { costCode: '0410' })).toBe('other');
  expect([typeAt({ job: '2108' }), typeAt({ party: 'NEW' })]).toEqual([null, null]);
});

test('the budget of the job says section, type and unit where the lines a row may be of agree', () => {
  const budget = [
    { job: '2105', section: 'Roof', costCode: '0310', costType: 'material', unit: 'm2' },
    { job: '2105', section: 'Roof', costCode: '0310', costType: 'labour', unit: '' },
    { job: '2105', section: 'Walls', costCode: '0410', costType: 'material', unit: 'm2' },
    { job: '2106', section: 'Yard', costCode: '0310', costType: 'material', unit: 't' },
  ];
  const says = (row: Record<string, string>, what: 'section' | 'costType' | 'unit') => budgetSays(row, budget, what);
  expect(says({ job: '2105', costCode: '0310' }, 'section')).toBe('Roof');
  expect([says({ job: '2105', costCode: '0310' }, 'costType'), says({ job: '2105', costCode: '0410' }, 'costType')]).toEqual([
    null,
    'material',
  ]);
  expect(says({ job: '2105', costType: 'material' }, 'unit')).toBe('m2');
  expect([says({ job: '2106' }, 'unit'), says({ costCode: '0310' }, 'section'), says({ job: '2199' }, 'section')]).toEqual([
    't',
    null,
    null,
  ]);
});

test('a price item that is chosen brings what is not typed yet, once; what stands there stays', () => {
  const item = {
    code: 'MEMBRANE',
    description: 'Membrane',
    unit: 'm2',
    costType: 'material' as const,
    costCode: '0310',
    wageClass: '',
    unitCost: 142_500,
    markup: null,
    vendor: 'PANEL',
    checkedOn: null,
  };
  const items = new Map([[item.code, item]]);
  const [row] = withChosenItems([{ $key: 'a', item: 'MEMBRANE', costCode: '0999' }], [{ $key: 'a' }], items);
  expect(row).toEqual({
    $key: 'a',
    item: 'MEMBRANE',
    costCode: '0999',
    costType: 'material',
    party: 'PANEL',
    description: 'Membrane, m2',
  });
  // Emptied since, it stays empty: the item is not chosen anew.
  const emptied = { ...row, party: '' };
  expect(withChosenItems([emptied], [row!], items)).toEqual([emptied]);
  expect(withChosenItems([{ item: 'NONE' }], [{}], items)).toEqual([{ item: 'NONE' }]);
});
