import { useDispatch } from 'react-redux';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { FigureRef } from '../../../wire/workings';
import { Figure } from '../../kit/Figure';
import { useCurrency } from '../company';
import { opened } from './workingsSlice';

/** A figure with its workings: money, percent or hours. */
export function Fig({
  value,
  unit = 'money',
  of,
  label,
  className,
  exact = false,
}: {
  value: number;
  unit?: 'money' | 'percent' | 'hours';
  of: FigureRef;
  label: string;
  className?: string;
  exact?: boolean;
}) {
  const dispatch = useDispatch();
  const { show, exact: showExact } = useCurrency();
  const text =
    unit === 'money'
      ? exact
        ? showExact(value)
        : show(value)
      : unit === 'percent'
        ? displayPercent(value)
        : displayQuantity(value);
  return (
    <Figure label={label} className={className} onOpen={() => dispatch(opened(of))}>
      {text}
    </Figure>
  );
}
