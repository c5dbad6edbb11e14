/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import type { AwardPlan } from '../../../../core/estimates/award';
import type { EstimateTotals } from '../../../../core/estimates/estimate';
import { openPage } from '../../../test/openPage';
import { AwardSummary } from './AwardSummary';

afterEach(cleanup);

test('what is agreed below the quote is a difference of its own; profit follows from the budget and is no part of its sum', async () => {
  const budget = [
    { costType: 'labour', amount: 3_000_000 },
    { costType: 'material', amount: 4_500_000 },
    { costType: 'labour', amount: 500_000 },
  ];
  // Cost 80,000.00, with markup 90,000.00, offered at 100,000.00, agreed at 98,500.00.
  const totals = { cost: 8_000_000, net: 9_000_000, price: 10_000_000 } as EstimateTotals;
  const Page = () => <AwardSummary totals={totals} plan={{ budget } as unknown as AwardPlan} agreed={9_850_000} />;
  openPage(Page, '/', '/', {});
  const rows = (name: string) =>
    within(screen.getByRole('columnheader', { name }).closest('table')!)
      .getAllByRole('row')
      .map((row) => row.textContent);
  await screen.findByRole('columnheader', { name: 'Contract' });
  expect(rows('Contract')).toEqual([
    'ContractGBP',
    'Cost and markup90,000.00',
    'Overhead, profit, rounding10,000.00',
    'Quoted100,000.00',
    'Agreed above or below quote−1,500.00',
    'Contract sum98,500.00',
  ]);
  expect(rows('Budget, 3 lines')).toEqual([
    'Budget, 3 linesGBP',
    'labour35,000.00',
    'material45,000.00',
    'Budget80,000.00',
    'Expected profit18,500.00',
  ]);
});
