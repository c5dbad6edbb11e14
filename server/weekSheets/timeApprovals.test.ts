import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { ApprovalRule } from '../../core/approvals/approvals';
import type { Role } from '../../core/rights/rights';
import type { TimeLineInput } from '../../wire/weekSheets';
import { runCommand } from '../acts/command';
import { askApproval, decideApproval } from '../approvals/approvals';
import { ApprovalRuleTable } from '../approvals/models';
import { NeedsApproval } from '../approvals/requireApproval';
import type { Database } from '../db/database';
import { handOver, openPayroll } from '../payroll/payroll';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TESTER, TIME_HEAD } from '../test/books';
import { worked } from '../test/postedBodies';
import { approveTime } from './decideTime';
import { planHours, postHours } from './postHours';
import { approvedOf, planPosting, postTime, previewPosting } from './postTime';
import { addSheet } from './saveSheet';
import { weekSheet } from './sheetViews';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
});
afterAll(cleanUp);

const WEEK = '2031-03-03';
const eight = (dated: string): TimeLineInput => ({ ...worked, dated, hours: 80_000 });
const by = (name: string, role: Role) => ({ ...TESTER, name, role });
const [MO, ANNA, OLGA] = [by('Mo', 'manager'), by('Anna', 'accountant'), by('Olga', 'owner')];
const rules = (...of: ApprovalRule[]) =>
  runCommand(database, { name: 'save-approval-rules', actor: TESTER }, ({ sql }) => sql.insertAll(ApprovalRuleTable, of));
/** What has to be approved first: the act, its amount and its document; null where it was done. */
const needed = async (work: Promise<unknown>) => {
  try {
    await work;
    return null;
  } catch (error) {
    if (error instanceof NeedsApproval) return error;
    throw error;
  }
};
const shown = (it: NeedsApproval | null) => it && [it.act.kind, it.act.amount, it.act.document, it.role];
const approve = async (sheet: string, actor: typeof MO) => {
  const { seen, lines } = await weekSheet(reading(database), sheet, undefined);
  return act(database, actor, approveTime, sheet, { seen, lines: lines.map((it) => it.id) }, null);
};
const post = async (sheets: string[], actor: typeof MO) => {
  const { seen } = await previewPosting(database, '2031-03-31', async (sql) =>
    planPosting(sql, await approvedOf(sql, sheets), null),
  );
  return act(database, actor, postTime, { sheets, lateOn: null, leaveOut: false, seen });
};

// 8 h at 22.50 are 180.00; with 18 % and 0.85 an hour, 219.20. Of two days: 438.40, and 360.00 of pay.
test('approving, posting and handing over wait for whom the rules name, above what the time costs; once given, it is done', async () => {
  await rules(
    { kind: 'approve-time', above: 219_20, role: 'accountant' },
    { kind: 'post-time', above: 300_00, role: 'owner' },
    { kind: 'hand-over', above: 0, role: 'owner' },
  );
  const add = (...lines: TimeLineInput[]) => act(database, TESTER, addSheet, { week: WEEK, lines }, null);
  await add(eight(WEEK));
  // Not above the limit.
  expect(await needed(approve('1', MO))).toBeNull();
  await add(eight('2031-03-04'), eight('2031-03-05'));
  const asked = await needed(approve('2', MO));
  expect(shown(asked)).toEqual(['approve-time', 438_40, '2', 'accountant']);
  expect(asked?.act.facts).toEqual([
    ['Week sheets', '2'],
    ['People', 'Ann Ash'],
    ['Jobs', 'J1'],
    ['Hours', '16'],
    ['Cost', '438.40'],
  ]);
  expect((await weekSheet(reading(database), '2', undefined)).lines.map((it) => it.state)).toEqual(['submitted', 'submitted']);
  expect(await needed(approve('2', ANNA))).toBeNull();
  // Sheet by sheet it would be under the limit for the first; together it is above.
  expect(await needed(post(['1'], ANNA))).toBeNull();
  const above = await needed(post(['2'], ANNA));
  expect(shown(above)).toEqual(['post-time', 438_40, '2', 'owner']);
  const request = { method: 'POST' as const, url: '/time-posting', body: {} };
  const id = await act(database, ANNA, askApproval, above!, request, 'the week is over');
  await act(database, OLGA, decideApproval, id, { give: true, note: '' });
  expect(await needed(post(['2'], ANNA))).toBeNull();
  const MARCH = { from: '2031-03-01', to: '2031-03-31' };
  const { seen } = await openPayroll(reading(database), MARCH);
  const hand = (actor: typeof MO) => act(database, actor, handOver, { ...MARCH, seen, employees: null });
  expect(shown(await needed(hand(ANNA)))).toEqual(['hand-over', 540_00, '', 'owner']);
  expect(await needed(hand(OLGA))).toBeNull();
});

test('in one act and by a book the same rules hold', async () => {
  await rules({ kind: 'approve-time', above: 0, role: 'owner' }, { kind: 'post-time', above: 200_00, role: 'owner' });
  const hours = { week: WEEK, lines: [eight(WEEK)], lateOn: null };
  const preview = await previewPosting(database, '2031-03-31', async (sql) => (await planHours(sql, hours, null)).planned);
  const atOnce = () => act(database, ANNA, postHours, { ...hours, seen: preview.seen }, null);
  expect(shown(await needed(atOnce()))).toEqual(['approve-time', 219_20, '1', 'owner']);
  const time = `${TIME_HEAD}7,1,E1,${WEEK},,J1,A,100,,,,8,,,\n`;
  expect(await faultsOf(database, { time }, ANNA)).toEqual(['time:2:status', 'time:2:status']);
  expect(await faultsOf(database, { time }, OLGA)).toEqual([]);
});
