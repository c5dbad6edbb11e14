import { expect, test } from '@jest/globals';
import { approves, ruleFor, type ApprovalRule } from './approvals';

test('the rule with the largest limit that an amount is above holds; at the limit itself it does not', () => {
  const rules: ApprovalRule[] = [
    { kind: 'transfer', above: 10_000_00, role: 'owner' },
    { kind: 'transfer', above: 1_000_00, role: 'accountant' },
    { kind: 'change-order', above: 0, role: 'manager' },
  ];
  const of = (amount: number) => ruleFor(rules, 'transfer', amount)?.role ?? null;
  expect([0, 1_000_00, 1_000_01, 10_000_00, 10_000_01, -10_000_01].map(of)).toEqual([
    ...[null, null, 'accountant', 'accountant', 'owner', 'owner'],
  ]);
  expect(ruleFor(rules, 'uncertify', 1)).toBeNull();
  expect([approves('owner', 'accountant'), approves('accountant', 'owner'), approves('manager', 'manager')]).toEqual([
    true,
    false,
    true,
  ]);
});
