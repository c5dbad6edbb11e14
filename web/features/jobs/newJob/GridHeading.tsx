import type { ReactNode } from 'react';

/** The heading of a grid, and what it comes to. */
export function GridHeading({ title, tools, children }: { title: string; tools?: ReactNode; children: ReactNode }) {
  return (
    <div className="mb-1 mt-5 flex flex-wrap items-end gap-x-4">
      <h2>{title}</h2>
      {tools}
      <p className="m-0 ml-auto" role="status">
        {children}
      </p>
    </div>
  );
}
