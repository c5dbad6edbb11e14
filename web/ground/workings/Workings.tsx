import { showUnitCostFull } from '../../kit/typed/unitCosts';
import { ChevronLeft } from 'lucide-react';
import type { Place } from '../../../core/places/place';
import { addressOf, moveAddressOf } from '../addressOf';
import { present } from '../../../core/errors/known';
import { useWorkingsQuery } from '../api/api';
import { useEffect, useRef } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { Link } from 'react-router';
import { useHotkeys } from 'react-hotkeys-hook';
import { withDisplayDates } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import { formatPercentShortest } from '../../../core/money/rate';
import type { FigureRef, FigureUnit, Operand } from '../../../wire/workings';
import { figureParams } from '../../../wire/workings';
import { useAsOf, useWithMonth } from '../asOf';
import { useCurrency } from '../company';
import { faultOf } from '../faults';
import { useMay } from '../person';
import type { RootState } from '../api/store';
import { followed, shut, wentBack } from './workingsSlice';

/** The drawer in which a figure explains itself, step by step down to the entries. */
export function Workings() {
  const trail = useSelector((state: RootState) => state.workings.trail);
  const dispatch = useDispatch();
  useHotkeys('esc', () => dispatch(trail.length > 1 ? wentBack() : shut()), { enabled: trail.length > 0 }, [trail.length]);
  const figure = trail.at(-1);
  const drawer = useDrawerFocus(figure);
  if (!figure) return null;
  return (
    <aside
      ref={drawer}
      tabIndex={-1}
      aria-label="Workings"
      className="outline-none fixed bottom-0 right-0 top-[46px] z-40 w-[430px] overflow-auto border-l px-5 py-4 shadow-2xl bg-[var(--sheet)] border-[var(--rule)]"
    >
      <div className="mb-3 flex items-center justify-between">
        <button type="button" className="button bare" disabled={trail.length < 2} onClick={() => dispatch(wentBack())}>
          <ChevronLeft size={14} aria-hidden="true" /> Back
        </button>
        <span className="note text-[12.5px]">Workings</span>
        <button type="button" className="button bare" onClick={() => dispatch(shut())}>
          Close, Esc
        </button>
      </div>
      <Explained figure={figure} />
    </aside>
  );
}

/** Opened, the drawer has the focus, step by step; shut, the figure it was opened from has it again. */
function useDrawerFocus(figure: FigureRef | undefined) {
  const drawer = useRef<HTMLElement>(null);
  const from = useRef<HTMLElement | null>(null);
  useEffect(() => {
    if (figure) {
      const at = document.activeElement;
      if (at instanceof HTMLElement && at !== document.body && !drawer.current?.contains(at)) from.current = at;
      drawer.current?.focus({ preventScroll: true });
    } else {
      from.current?.focus({ preventScroll: true });
      from.current = null;
    }
  }, [figure]);
  return drawer;
}

function Explained({ figure }: { figure: FigureRef }) {
  const { asOf } = useAsOf();
  const withMonth = useWithMonth();
  const dispatch = useDispatch();
  const { data, error, isFetching } = useWorkingsQuery({ ...figureParams(figure), asOf });
  if (error) return <p role="alert">{faultOf(error).message}</p>;
  if (!data || isFetching)
    return (
      <p className="note" role="status">
        Working it out …
      </p>
    );
  return (
    <>
      <h2>{data.title}</h2>
      <p className="note mb-3">{data.subject}</p>
      <p className="mb-3">{withDisplayDates(data.rule)}</p>
      <table className="ledger static-foot">
        <tbody>
          {data.operands.map((operand, i) => (
            <OperandRow key={i} operand={operand} />
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td />
            <td>{data.title}</td>
            <td className="num">
              <Value value={data.result} unit={data.unit} />
            </td>
          </tr>
        </tfoot>
      </table>
      {data.entries && (
        <p className="mt-2">
          <Link to={withMonth(addressOf(data.entries))} onClick={() => dispatch(shut())}>
            All these entries
          </Link>
          <MoveLink of={data.entries} label="all these entries" />
        </p>
      )}
      {data.operands.length === 0 && <p className="note mt-2">No entries to date.</p>}
    </>
  );
}

function OperandRow({ operand }: { operand: Operand }) {
  const dispatch = useDispatch();
  const withMonth = useWithMonth();
  const value = operand.shown ?? <Value value={operand.value} unit={operand.unit} />;
  return (
    <tr>
      <td className="note w-[20px] p-[0_2px]">{operand.sign}</td>
      <td className="p-[4px_6px]">
        {operand.to ? (
          <Link to={withMonth(addressOf(operand.to))} onClick={() => dispatch(shut())}>
            {withDisplayDates(operand.label)}
          </Link>
        ) : (
          withDisplayDates(operand.label)
        )}
        {operand.to && <MoveLink of={operand.to} label={operand.label} />}
      </td>
      <td className="num">
        {operand.figure ? (
          <button
            type="button"
            className="fig seen"
            aria-label={`${operand.label}: show its workings`}
            onClick={() => dispatch(followed(present(operand.figure)))}
          >
            {value}
          </button>
        ) : (
          value
        )}
      </td>
    </tr>
  );
}

/** Where cost entries stand behind it, leads to where they are moved elsewhere. */
function MoveLink({ of, label }: { of: Place; label: string }) {
  const dispatch = useDispatch();
  const withMonth = useWithMonth();
  const may = useMay();
  const to = moveAddressOf(of);
  if (to === null || !may('correct-costs')) return null;
  return (
    <Link
      className="ml-2 text-[12.5px]"
      to={withMonth(to)}
      aria-label={`Move the cost of ${label}`}
      onClick={() => dispatch(shut())}
    >
      Move …
    </Link>
  );
}

function Value({ value, unit }: { value: number | string; unit: FigureUnit }) {
  const { exact } = useCurrency();
  if (typeof value === 'string') return <>{withDisplayDates(value)}</>;
  switch (unit) {
    case 'percent':
      return <>{formatPercentShortest(value)} %</>;
    case 'hours':
      return <>{displayQuantity(value)} h</>;
    case 'quantity':
      return <>{displayQuantity(value)}</>;
    case 'unit-cost':
      return <>{showUnitCostFull(value)}</>;
    default:
      return <>{exact(value)}</>;
  }
}
