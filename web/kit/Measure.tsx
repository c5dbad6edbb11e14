import { present } from '../../core/errors/known';
import type { ReactNode } from 'react';

/** Figures in minor units; `before`: what they were at the end of last month. */
export interface MeasureFigures extends BarFigures {
  before?: BarFigures | null;
}

interface BarFigures {
  contractSum: number;
  earned: number;
  billed: number;
  received: number;
  cost: number;
  estimate: number;
}

const BARS = [
  { key: 'contractSum', label: 'Contract sum', colour: 'var(--bar-contract)' },
  { key: 'earned', label: 'Earned', colour: 'var(--bar-earned)' },
  { key: 'billed', label: 'Billed', colour: 'var(--bar-billed)' },
  { key: 'received', label: 'Received, before tax', colour: 'var(--bar-received)' },
  { key: 'cost', label: 'Cost to date', colour: 'var(--bar-cost)' },
  { key: 'estimate', label: 'Estimate at completion', colour: 'var(--bar-estimate)' },
] as const;
export type MeasureKey = (typeof BARS)[number]['key'];

function scaleOf(figures: MeasureFigures): number {
  return Math.max(1, ...BARS.map(({ key }) => figures[key]));
}

/** A job at a glance, small: earned over billed, cost within its estimate, all on the scale of the contract sum. */
export function SmallMeasure({ figures, label }: { figures: MeasureFigures; label: string }) {
  const scale = scaleOf(figures);
  const width = (value: number) => Math.max(0, (value / scale) * 116);
  const bar = (y: number, value: number, colour: string, height = 3) => (
    <rect x="0" y={y} width={width(value)} height={height} fill={colour} />
  );
  const tick = (y: number, height: number, value: number | undefined) =>
    value ? <rect x={width(value) - 0.5} y={y - 1} width="1" height={height + 2} fill="var(--ink)" /> : null;
  return (
    <svg width="120" height="24" viewBox="0 0 120 24" role="img" aria-label={label} className="block">
      {bar(2, figures.earned, 'var(--bar-earned)')}
      {bar(7, figures.billed, 'var(--bar-billed)')}
      {bar(14, figures.estimate, 'var(--bar-estimate)', 7)}
      {bar(16, figures.cost, 'var(--bar-cost)')}
      <line x1={width(figures.contractSum)} x2={width(figures.contractSum)} y1="0" y2="24" stroke="var(--ink)" strokeWidth="1" />
      {tick(2, 3, figures.before?.earned)}
      {tick(7, 3, figures.before?.billed)}
      {tick(16, 3, figures.before?.cost)}
      {figures.estimate > figures.contractSum && (
        <rect
          x={width(figures.contractSum)}
          y="14"
          width={width(figures.estimate) - width(figures.contractSum)}
          height="7"
          fill="url(#loss-hatch)"
          stroke="var(--loss)"
          strokeWidth="0.8"
        />
      )}
    </svg>
  );
}

/** Patterns the measures draw with; stands once on the page. */
export function MeasurePatterns() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      <defs>
        <pattern id="loss-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="4" stroke="var(--loss)" strokeWidth="2" />
        </pattern>
      </defs>
    </svg>
  );
}

/** The measure in full: six thin bars on one money scale, each with its figure. `figure` draws a value with its workings. */
export function Measure({ figures, figure }: { figures: MeasureFigures; figure: (key: MeasureKey, label: string) => ReactNode }) {
  const scale = scaleOf(figures);
  const per = (value: number) => `${Math.max(0, (value / scale) * 100)}%`;
  const loss = figures.estimate > figures.contractSum;
  return (
    <dl className="grid items-center gap-y-[5px] grid-cols-[max-content_minmax(0,1fr)_max-content] gap-x-[14px]">
      {BARS.map(({ key, label, colour }) => (
        <div key={key} className="contents">
          <dt className="text-[13px] text-[var(--soft)]">{label}</dt>
          <dd aria-hidden="true" className="relative m-0 h-[10px] [border-left:1px_solid_var(--rule)]">
            <span className="absolute inset-y-[1px] left-0" style={{ width: per(figures[key]), background: colour }} />
            {key === 'estimate' && loss && (
              <span
                className="absolute inset-y-[1px]"
                style={{
                  left: per(figures.contractSum),
                  width: per(figures.estimate - figures.contractSum),
                  background: 'repeating-linear-gradient(45deg, var(--loss) 0 2px, transparent 2px 4px)',
                }}
              />
            )}
            {figures.before && key !== 'contractSum' && (
              <span
                className="absolute inset-y-[-1px] w-[2px]"
                style={{ left: per(figures.before[key]), background: 'var(--ink)' }}
                title="At the end of last month"
              />
            )}
            <span className="absolute inset-y-[-4px] w-px" style={{ left: per(figures.contractSum), background: 'var(--ink)' }} />
          </dd>
          <dd className="figure m-0">{figure(key, label)}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What the small measure's bars are, for the head of a list. */
export function MeasureKey() {
  return (
    <span className="inline-flex flex-wrap items-center gap-x-3 text-[12.5px] text-[var(--soft)]">
      {(['earned', 'billed', 'cost', 'estimate'] as const).map((key) => {
        const { label, colour } = present(BARS.find((bar) => bar.key === key));
        return (
          <span key={key} className="inline-flex items-center gap-1">
            <span aria-hidden="true" style={{ background: colour, width: 14, height: key === 'estimate' ? 7 : 3 }} />
            {label.toLowerCase()}
          </span>
        );
      })}
      <span className="inline-flex items-center gap-1">
        <span aria-hidden="true" className="bg-[var(--ink)] w-[1px] h-[12px]" />
        contract sum
      </span>
      <span className="inline-flex items-center gap-1">
        <span aria-hidden="true" className="bg-[var(--ink)] w-[1px] h-[5px]" />
        last month
      </span>
    </span>
  );
}
