import type { ReactNode } from 'react';

/** The heading of a page, and what may be done on it. */
export function PageHead({ title, children }: { title: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-3 flex items-end justify-between gap-x-6 gap-y-2 max-[640px]:flex-wrap">
      <h1>{title}</h1>
      {children}
    </div>
  );
}
