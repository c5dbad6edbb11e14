import type { EstimatedLine } from '../costs/estimatedLines';

/** A cost line as people say it. */
export function lineName({
  section,
  costCode,
  costType,
  description,
}: Pick<EstimatedLine, 'section' | 'costCode' | 'costType' | 'description'>): string {
  return [section, `${costCode} ${description}`, costType].filter((it) => it !== '').join(' · ');
}
