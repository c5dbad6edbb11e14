import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ReactNode } from 'react';

/** Which way a column is sorted; null where it is not. */
export type SortWay = 'up' | 'down' | null;

interface SortHeadProps {
  way: SortWay;
  /** What pressing it does; a head without it is not sorted by. */
  onSort?: () => void;
  width?: number | string;
  className?: string;
  children: ReactNode;
}

/** The head of a column; one that can be sorted by is pressed for it, and shows which way it is. */
export function SortHead({ way, onSort, width, className, children }: SortHeadProps) {
  const Arrow = way === 'down' ? ArrowDown : ArrowUp;
  return (
    <th
      className={className}
      style={width === undefined ? undefined : { width }}
      aria-sort={way ? (way === 'down' ? 'descending' : 'ascending') : undefined}
    >
      {onSort ? (
        <button type="button" className="fig" title="Sort" onClick={onSort}>
          {children}
          {way && <Arrow className="sort-way" size={12} strokeWidth={2.6} aria-hidden="true" />}
        </button>
      ) : (
        children
      )}
    </th>
  );
}
