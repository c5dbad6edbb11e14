import { formatPercentShortest, type Rate } from '../money/rate';
import type { RetentionRule } from './retention';

const percent = (rate: Rate) => `${formatPercentShortest(rate)} %`;

/** The rule for retention, read out in plain words. */
export function describeRetention({ rate, materialsRate, step, cap }: RetentionRule): string {
  const sentences = [rate === 0 && !step ? 'No retention is held on work.' : `${percent(rate)} of work done to date is held.`];
  if (materialsRate !== null)
    sentences.push(
      materialsRate === 0 ? 'Nothing is held on materials on site.' : `${percent(materialsRate)} is held on materials on site.`,
    );
  if (step?.applies === 'all')
    sentences.push(`Once ${percent(step.at)} of the contract sum is reached, the rate on all work becomes ${percent(step.to)}.`);
  if (step?.applies === 'further')
    sentences.push(`On work beyond ${percent(step.at)} of the contract sum the rate is ${percent(step.to)}.`);
  if (cap !== null) sentences.push(`Never more than ${percent(cap)} of the contract sum.`);
  return sentences.join(' ');
}
