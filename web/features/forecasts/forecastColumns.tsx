import { GridFoot } from '../../kit/grid/GridFoot';
import { useMemo } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { revisedBudget } from '../../../core/forecast/estimateAtCompletion';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { ForecastLine, ForecastView } from '../../../wire/forecasts';
import { useCurrency } from '../../ground/company';
import type { GridColumn } from '../../kit/grid/gridTypes';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { Sign } from '../../kit/Signs';
import type { ForecastCodecs, WorkedForecast } from './forecastForm';

/** Figures of a line as they stand and as they become, minor units. */
function figuresOf({ state, lastMonth }: ForecastLine, estimate: number) {
  const revised = revisedBudget(state);
  return {
    revised,
    cost: state.cost,
    committed: state.openCommitment,
    estimate,
    lastMonth: lastMonth ?? 0,
    change: estimate - (lastMonth ?? 0),
    toComplete: estimate - state.cost,
  };
}
type Figure = keyof ReturnType<typeof figuresOf>;

/** What was said of a line before, and when. */
function saidBefore({ before }: ForecastLine, exact: (cents: number) => string): string {
  if (!before) return '';
  const value = {
    'to-complete': () => `${exact(before.value)} to complete`,
    percent: () => `${displayPercent(before.value)} % done`,
    hours: () => `${displayQuantity(before.value)} h to go`,
  }[before.method]();
  return `${value}, ${displayDate(before.on)}${before.note && `: ${before.note}`}`;
}

export function useForecastColumns(view: ForecastView, worked: WorkedForecast, codecs: ForecastCodecs): GridColumn[] {
  const { show, exact } = useCurrency();
  return useMemo(() => {
    const of = (i: number) => {
      const line = view.lines[i];
      return line && { line, figures: figuresOf(line, worked.lines[i]?.estimate ?? 0) };
    };
    const figure = (key: Figure, title: string, width: number): GridColumn => ({
      key,
      title,
      width,
      numeric: true,
      show: (_row, i) => show(of(i)?.figures[key] ?? 0),
    });
    return columnsOf(codecs, [
      {
        key: 'line',
        title: 'Line',
        width: 'auto',
        show: (_row, i) => {
          const line = of(i)?.line;
          if (!line) return '';
          const name = [`${line.costCode} ${line.description}`, line.costType, line.section].filter(Boolean).join(' · ');
          const before = saidBefore(line, exact);
          return (
            <span className="block truncate" title={before ? `${name}. Earlier forecast: ${before}` : name}>
              {name}
            </span>
          );
        },
      },
      figure('revised', 'Revised budget', 92),
      figure('cost', 'Cost to date', 92),
      figure('committed', 'Committed', 80),
      { key: 'to-complete', title: 'Cost to complete', width: 92 },
      { key: 'percent', title: '% done', width: 56 },
      { key: 'hours', title: 'Hours to go', width: 62 },
      {
        key: 'estimate',
        title: 'Estimate at completion',
        width: 104,
        numeric: true,
        show: (_row, i) => {
          const it = of(i)?.figures;
          if (!it) return '';
          return (
            <>
              {it.estimate > it.revised && <Sign name="overrun" bare />} <b>{show(it.estimate)}</b>
            </>
          );
        },
      },
      figure('lastMonth', 'Last month', 92),
      figure('change', 'Change', 84),
      { key: 'note', title: 'Note', width: '11%' },
    ]);
  }, [view.lines, worked, codecs, show, exact]);
}

/** The totals of the columns. */
export function ForecastFoot({ view, worked }: { view: ForecastView; worked: WorkedForecast }) {
  const { show } = useCurrency();
  const sum = (key: Figure) =>
    show(view.lines.reduce((total, line, i) => total + figuresOf(line, worked.lines[i]?.estimate ?? 0)[key], 0));
  const cells = [
    'Total',
    ...[
      sum('revised'),
      sum('cost'),
      sum('committed'),
      sum('toComplete'),
      '',
      '',
      sum('estimate'),
      sum('lastMonth'),
      sum('change'),
      '',
    ],
  ];
  return <GridFoot cells={cells} />;
}
