import type { ReactNode } from 'react';
import { Refused, Waiting } from '../kit/States';
import { faultOf } from './faults';

interface Result<Data> {
  data?: Data;
  error?: unknown;
  refetch: () => unknown;
}

/** What is read from the server: waited for, or refused with a way to try again, or here. The one place of all three. */
export function Loaded<Data>({
  of: { data, error, refetch },
  what,
  children,
}: {
  of: Result<Data>;
  what: string;
  children: (data: Data) => ReactNode;
}) {
  if (error) return <Refused message={faultOf(error).message} onRetry={() => void refetch()} />;
  if (data === undefined) return <Waiting what={what} />;
  return children(data);
}
