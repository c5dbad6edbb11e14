import { refuse, type Refusal } from '../refusals/refusal';
import type { Cents } from '../money/cents';

/** How a job is priced: at a contract sum, or by what is charged for its cost. docs/rules.md §14. */
export const PRICINGS = ['fixed', 'charged'] as const;
export type Pricing = (typeof PRICINGS)[number];

/** How it is named on the screen. */
export const PRICING_WORDS: Readonly<Record<Pricing, string>> = {
  fixed: 'a contract sum',
  charged: 'what is charged for its cost',
};

/** What a job is priced by. */
export interface JobPricing {
  pricing: Pricing;
  /** Before tax; null: none. */
  ceiling: Cents | null;
}

/** Why a job cannot be priced so; `has`: what it has of a contract already, null for nothing. */
export function pricingRefusals(job: string, { pricing, ceiling }: JobPricing, has: string | null): Refusal[] {
  const refusals: Refusal[] = [];
  if (pricing === 'charged' && has !== null) refusals.push(refuse('pricing-has-contract', 'pricing', { job, has }));
  if (ceiling !== null && pricing === 'fixed') refusals.push(refuse('ceiling-of-fixed', 'ceiling', {}));
  else if (ceiling !== null && ceiling <= 0) refusals.push(refuse('ceiling-nothing', 'ceiling', {}));
  return refusals;
}
