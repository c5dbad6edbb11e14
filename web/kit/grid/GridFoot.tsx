import type { ReactNode } from 'react';

/** The total row of a grid, a cell a column: words first, figures to the right. `grows`: the grid numbers its rows, and removes them. */
export function GridFoot({ cells, grows = false }: { cells: readonly ReactNode[]; grows?: boolean }) {
  return (
    <tfoot>
      <tr>
        {cells.map((cell, i) => (
          <td key={i} colSpan={grows && i === 0 ? 2 : 1} className={`worked grid-foot ${i > 0 ? 'figure' : ''}`}>
            {cell}
          </td>
        ))}
        {grows && <td className="worked grid-foot" />}
      </tr>
    </tfoot>
  );
}
