import { Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { displayPeriod } from '../../core/calendar/displayDate';
import { useCurrency } from './company';

/** A course over months. Plans are dashed. */
export interface Course {
  key: string;
  name: string;
  colour: string;
  planned?: boolean;
}

/**
 * Amounts to date by month, as lines. `months` carry amounts in minor units under the keys of the courses; null where a
 * course has none yet. The table with the figures stands beside it, so the drawing is not read out.
 */
export function MonthChart<M extends { month: string }>({
  months,
  courses,
  height,
}: {
  months: readonly M[];
  courses: readonly Course[];
  height: number;
}) {
  const { show } = useCurrency();
  const tick = { fill: 'var(--soft)', fontSize: 12 };
  return (
    <div style={{ height }} aria-hidden="true">
      <ResponsiveContainer width="100%" height="100%">
        <LineChart accessibilityLayer={false} data={[...months]} margin={{ top: 6, right: 8, bottom: 0, left: 0 }}>
          <XAxis dataKey="month" tickFormatter={displayPeriod} stroke="var(--rule)" tick={tick} minTickGap={24} />
          <YAxis
            tickFormatter={(value: number) => show(value).replace(/\.\d+$/, '')}
            stroke="var(--rule)"
            tick={tick}
            width={82}
          />
          <ReferenceLine y={0} stroke="var(--rule)" />
          <Tooltip
            formatter={(value) => show(Number(value))}
            labelFormatter={(label) => displayPeriod(String(label))}
            contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)' }}
          />
          <Legend verticalAlign="top" align="right" iconType="plainline" wrapperStyle={{ fontSize: 12 }} formatter={inInk} />
          {courses.map(({ key, name, colour, planned }) => (
            <Line
              key={key}
              dataKey={key}
              name={name}
              stroke={colour}
              strokeDasharray={planned ? '5 3' : undefined}
              strokeWidth={planned ? 1.5 : 2.5}
              dot={months.length === 1 ? { r: 3 } : false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}

/** The line before it has the colour; the name is to be read. */
function inInk(name: string) {
  return <span className="text-[var(--ink)]">{name}</span>;
}
