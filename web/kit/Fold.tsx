import { useState, type ReactNode } from 'react';

interface FoldProps {
  title: string;
  /** What stands in it, in a line: seen while it is folded and open. */
  says?: ReactNode;
  /** Something in it has to be seen: it is open, and stays so until somebody folds it. */
  opened?: boolean;
  children: ReactNode;
}

/** A part of a page that is not needed every time: folded until somebody opens it, or it has something to show. */
export function Fold({ title, says, opened = false, children }: FoldProps) {
  const [open, setOpen] = useState(opened);
  const [was, setWas] = useState(opened);
  if (opened !== was) {
    setWas(opened);
    if (opened) setOpen(true);
  }
  return (
    <section className="fold" aria-label={title}>
      <div className="flex items-baseline gap-3">
        <button type="button" className="button bare" aria-expanded={open} onClick={() => setOpen(!open)}>
          <span aria-hidden="true" className="fold-mark">
            {open ? '−' : '+'}
          </span>{' '}
          <b>{title}</b>
        </button>
        {says && <span className="note">{says}</span>}
      </div>
      {open && children}
    </section>
  );
}
