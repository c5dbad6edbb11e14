import type { ReactNode } from 'react';
import { LineLookBar } from './LineLookBar';
import type { LineLook } from './lineLook';
import type { LookedLines } from './useLookedLines';

/** Above the cost lines of a job: how they are grouped, narrowed and folded. `look`: with the view, where the page has several. */
export function LookedLinesBar({
  looked,
  look = looked.look,
  onLook = looked.setLook,
  before,
  children,
}: {
  looked: LookedLines;
  look?: LineLook;
  onLook?: (look: LineLook) => void;
  /** Stands first. */
  before?: ReactNode;
  /** Stands at the end. */
  children?: ReactNode;
}) {
  return (
    <div className="mb-2 flex flex-wrap items-end gap-3">
      {before}
      {looked.anything && <LineLookBar look={look} onLook={onLook} />}
      {looked.anything && looked.groupOf && (
        <button type="button" className="button bare" onClick={looked.foldAll}>
          {looked.folded.size > 0 ? 'Unfold all' : 'Collapse all'}
        </button>
      )}
      <span className="ml-auto inline-flex items-center gap-3">{children}</span>
    </div>
  );
}
