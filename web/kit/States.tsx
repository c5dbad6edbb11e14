import type { ReactNode } from 'react';

/** What stands where figures will be, while they come. */
export function Waiting({ what }: { what: string }) {
  return (
    <p className="note p-6" role="status">
      Reading {what} …
    </p>
  );
}

/** A request that was refused: what is wrong, and a way to try again. */
export function Refused({ message, onRetry }: { message: string; onRetry?: () => unknown }) {
  return (
    <div role="alert" className="my-3 flex items-center gap-3 border-l-4 px-3 py-2 border-[var(--loss)] bg-[var(--loss-soft)]">
      <span>{message}</span>
      {onRetry && (
        <button type="button" className="button" onClick={() => void onRetry()}>
          Try again
        </button>
      )}
    </div>
  );
}

/** An empty list, with the real ways to fill it. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="sheet my-3 px-6 py-8">
      <h2>{title}</h2>
      <div className="mt-2 flex flex-wrap items-center gap-3">{children}</div>
    </div>
  );
}
