import type { ReactNode } from 'react';
import { Refused, Waiting } from '../kit/States';
import { faultOf, isPassing } from './faults';

interface Result<Data> {
  data?: Data;
  /** Of what is asked for now; `data` may be of what was asked for before. */
  currentData?: Data;
  error?: unknown;
  refetch: () => unknown;
}

/**
 * What is read from the server: waited for, or refused with a way to try again, or here. The one place of all three. Read again in vain,
 * because the line or the server fails, what was there stays, with what is typed in it.
 */
export function Loaded<Data>({
  of: { data, currentData, error, refetch },
  what,
  children,
}: {
  of: Result<Data>;
  what: string;
  children: (data: Data) => ReactNode;
}) {
  const shown = error === undefined ? data : isPassing(error) ? currentData : undefined;
  const refused = error !== undefined && <Refused message={faultOf(error).message} onRetry={() => void refetch()} />;
  if (shown === undefined) return refused || <Waiting what={what} />;
  return (
    <>
      {refused}
      {children(shown)}
    </>
  );
}
