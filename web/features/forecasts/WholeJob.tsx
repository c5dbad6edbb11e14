import { useMemo, useState } from 'react';
import { spreadWhole, WHOLE_WAYS, type NotSpread, type WholeWay } from '../../../core/forecast/spreadWhole';
import type { ForecastView } from '../../../wire/forecasts';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import type { GridRow } from '../../kit/grid/gridTypes';
import { Pop } from '../../kit/Pop';
import { amount, oneOf } from '../../kit/typed/codecs';
import { METHODS, named, type ForecastCodecs, type WorkedForecast } from './forecastForm';

/** What the note of a line begins with whose cost to complete was spread: a line with another has its own. */
const SPREAD = 'Spread over the lines';
const isSpread = (note: string | undefined) => (note ?? '').startsWith(SPREAD);
const isSaid = (row: GridRow | undefined) => METHODS.some((it) => (row?.[it] ?? '').trim() !== '');

/** Whether a line says itself what it comes to, in this forecast or in one before that still holds. */
const hasOwn = ({ before }: ForecastView['lines'][number], row: GridRow | undefined) =>
  isSaid(row) ? !isSpread(row?.note) : before !== null && !isSpread(before.note);

interface WholeProps {
  view: ForecastView;
  rows: readonly GridRow[];
  worked: WorkedForecast;
  codecs: ForecastCodecs;
  onRows: (rows: GridRow[]) => void;
}

/** One figure for the whole job, spread over its lines; a line that says something itself keeps it. */
export function WholeJob(props: WholeProps) {
  const [open, setOpen] = useState(false);
  return (
    <Pop button="Whole job in one figure …" align="end" className="w-[320px] p-4" open={open} onOpen={setOpen}>
      <WholeForm {...props} onDone={() => setOpen(false)} />
    </Pop>
  );
}

function WholeForm({ view, rows, worked, codecs, onRows, onDone }: WholeProps & { onDone: () => void }) {
  const { digits, exact } = useCurrency();
  const fields = useMemo(() => ({ way: oneOf(Object.keys(WHOLE_WAYS) as WholeWay[]), amount: amount(digits) }), [digits]);
  const form = useCodecForm(fields, { way: 'estimate', amount: '' }, { partOfPage: true });
  const onSubmit = form.submit(({ way, amount }) => {
    const spread = spreadWhole(
      way,
      amount,
      view.lines.map((line, i) => ({
        state: line.state,
        own: hasOwn(line, rows[i]) ? (worked.lines[i]?.estimate ?? null) : null,
      })),
    );
    if (!Array.isArray(spread)) {
      form.refuse({ message: '', faults: [{ field: 'amount', message: whyNot(spread, exact) }] });
      return Promise.resolve();
    }
    const note = `${SPREAD}: ${WHOLE_WAYS[way]} of the whole job ${exact(amount)}`;
    onRows(rows.map((row, i) => spreadRow(row, spread[i] ?? null, note, codecs)));
    onDone();
    return Promise.resolve();
  }, faultOf);
  return (
    <form aria-label="Whole job" className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      {form.choice('way', 'What is known', Object.entries(WHOLE_WAYS))}
      {form.input('amount', 'Amount', { autoFocus: true })}
      <p className="note m-0 text-[12.5px]">
        Spread over the lines in proportion to the budget left on each. A line with a forecast of its own keeps it.
      </p>
      <button className="button main self-start">Spread over the lines</button>
    </form>
  );
}

function spreadRow(row: GridRow, value: number | null, note: string, codecs: ForecastCodecs): GridRow {
  return value === null ? row : { ...named(row), 'to-complete': codecs['to-complete'].format(value), note };
}

function whyNot(not: NotSpread, exact: (cents: number) => string): string {
  return not.why === 'no-budget-left'
    ? 'No line has budget left to spread it by; enter the cost to complete on the lines'
    : `That leaves ${exact(not.asked)} to complete; orders alone are ${exact(not.least)} on the lines it would be spread over`;
}
