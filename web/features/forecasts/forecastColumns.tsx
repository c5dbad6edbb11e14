import { GridFoot } from '../../kit/grid/GridFoot';
import { useMemo, useRef } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { revisedBudget } from '../../../core/forecast/estimateAtCompletion';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { ForecastLine, ForecastView } from '../../../wire/forecasts';
import { useCurrency } from '../../ground/company';
import { lineName, type Grouping } from '../../ground/costLines/lineLook';
import type { GridColumn, GridHeading } from '../../kit/grid/gridTypes';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { Sign } from '../../kit/Signs';
import type { ForecastCodecs, WorkedForecast } from './forecastForm';
import type { ShownGroup, ShownLines } from './shownLines';

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

export function useForecastColumns(
  view: ForecastView,
  worked: WorkedForecast,
  codecs: ForecastCodecs,
  { places }: ShownLines,
  by: Grouping,
): GridColumn[] {
  const { show, exact } = useCurrency();
  return useMemo(() => {
    const of = (row: number) => {
      const place = places[row] ?? -1;
      const line = view.lines[place];
      return line && { line, figures: figuresOf(line, worked.lines[place]?.estimate ?? 0) };
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
          const name = lineName(line, by);
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
  }, [view.lines, worked, codecs, show, exact, places, by]);
}

/** What lines come to, by the columns; `places`: of the forecast. */
function sumsOf(view: ForecastView, worked: WorkedForecast, places: readonly number[], show: (cents: number) => string) {
  const sum = (key: Figure) =>
    show(
      places.reduce((total, place) => {
        const line = view.lines[place];
        return total + (line ? figuresOf(line, worked.lines[place]?.estimate ?? 0)[key] : 0);
      }, 0),
    );
  return {
    revised: sum('revised'),
    cost: sum('cost'),
    committed: sum('committed'),
    'to-complete': sum('toComplete'),
    estimate: sum('estimate'),
    lastMonth: sum('lastMonth'),
    change: sum('change'),
  };
}

/** The names of the groups above their rows, with what their lines come to. */
export function useGroupHeadings(view: ForecastView, worked: WorkedForecast, shown: ShownLines, onFold: (name: string) => void) {
  const { show } = useCurrency();
  const fold = useRef(onFold);
  fold.current = onFold;
  return useMemo(() => {
    const heading = ({ name, lines, folded }: ShownGroup): GridHeading => ({
      key: name,
      label: (
        <button type="button" className="fig" aria-expanded={!folded} onClick={() => fold.current(name)}>
          <span aria-hidden="true" className="inline-block w-4">
            {folded ? '+' : '–'}
          </span>
          {name} <span className="note font-normal">{lines.length}</span>
        </button>
      ),
      cells: sumsOf(view, worked, lines, show),
    });
    return new Map([...shown.above].map(([row, groups]) => [row, groups.map(heading)]));
  }, [view, worked, shown, show]);
}

/** The totals of the columns. */
export function ForecastFoot({ view, worked, shown }: { view: ForecastView; worked: WorkedForecast; shown: ShownLines }) {
  const { show } = useCurrency();
  const places = shown.whole ? view.lines.map((_, i) => i) : (shown.groups?.flatMap((it) => it.lines) ?? shown.places);
  const sums = sumsOf(view, worked, places, show);
  const label = shown.whole ? 'Total' : `${places.length} of ${view.lines.length} lines`;
  const cells = [
    label,
    ...[sums.revised, sums.cost, sums.committed, sums['to-complete'], '', '', sums.estimate, sums.lastMonth, sums.change, ''],
  ];
  return <GridFoot cells={cells} />;
}
