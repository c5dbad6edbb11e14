import type { ReactNode } from 'react';

/** The heading of a page, and what may be done on it. */
export function PageHead({ title, children }: { title: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-3 flex items-end justify-between gap-6">
      <h1>{title}</h1>
      {children}
    </div>
  );
}
