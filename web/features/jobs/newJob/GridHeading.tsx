import type { ReactNode } from 'react';

/** The heading of a grid, and what it comes to. */
export function GridHeading({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mt-5 flex items-end justify-between">
      <h2>{title}</h2>
      <p className="m-0" role="status">
        {children}
      </p>
    </div>
  );
}
