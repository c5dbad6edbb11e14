import type { ReactNode } from 'react';

/** The total row of a grid, a cell a column: words first, figures to the right. */
export function GridFoot({ cells }: { cells: readonly ReactNode[] }) {
  return (
    <tfoot>
      <tr>
        {cells.map((cell, i) => (
          <td key={i} className={`worked grid-foot ${i > 0 ? 'figure' : ''}`}>
            {cell}
          </td>
        ))}
      </tr>
    </tfoot>
  );
}
