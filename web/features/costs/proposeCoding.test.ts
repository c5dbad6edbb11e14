import { expect, test } from '@jest/globals';
import { proposeCoding, proposeType } from './proposeCoding';

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
