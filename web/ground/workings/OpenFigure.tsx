import type { ReactNode } from 'react';
import { useDispatch } from 'react-redux';
import type { FigureRef } from '../../../wire/workings';
import { Figure } from '../../kit/Figure';
import { opened } from './workingsSlice';

/** A figure, written as it is given, that opens its workings. */
export function OpenFigure({ of, label, children }: { of: FigureRef; label: string; children: ReactNode }) {
  const dispatch = useDispatch();
  return (
    <Figure label={label} onOpen={() => dispatch(opened(of))}>
      {children}
    </Figure>
  );
}
