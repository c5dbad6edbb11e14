import { at } from '../../../core/errors/known';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { RetentionRule } from '../../../core/billing/retention';
import { retentionCurve } from '../../../core/billing/retentionCurve';
import { useCurrency } from '../../ground/company';

/** The rule in words, and what will be held as the job progresses evenly. */
export function RetentionCurve({
  rule,
  lines,
  words,
}: {
  rule: RetentionRule;
  lines: readonly { value: number; rate: number | null }[];
  words: string;
}) {
  const { show, digits, code } = useCurrency();
  const points = retentionCurve(rule, lines).map((it) => ({
    percent: it.share / 10_000,
    held: it.held / 10 ** digits,
    cents: it.held,
  }));
  const most = points.reduce((best, it) => (it.cents > best.cents ? it : best), at(points, 0));
  return (
    <div>
      <p className="m-0">{words}</p>
      {most.cents > 0 && (
        <>
          <div className="mt-2 h-[130px]" aria-hidden="true">
            <ResponsiveContainer width="100%" height="100%">
              <LineChart accessibilityLayer={false} data={points} margin={{ top: 6, right: 8, bottom: 0, left: 8 }}>
                <CartesianGrid stroke="var(--hair)" vertical={false} />
                <XAxis
                  dataKey="percent"
                  ticks={[0, 25, 50, 75, 100]}
                  type="number"
                  domain={[0, 100]}
                  stroke="var(--rule)"
                  tick={{ fill: 'var(--soft)', fontSize: 12 }}
                  unit="%"
                />
                <YAxis hide domain={[0, 'dataMax']} />
                <Line dataKey="held" dot={false} stroke="var(--held)" strokeWidth={2} isAnimationActive={false} />
              </LineChart>
            </ResponsiveContainer>
          </div>
          <p className="note m-0 text-[12.5px]">
            Held by share of work done: at most {show(most.cents)} {code} at {most.percent} %, {show(at(points, -1).cents)} at the
            end.
          </p>
        </>
      )}
    </div>
  );
}
