import { useEffect } from 'react';
import { toast } from '../kit/toast';
import { faultOf, isPassing } from './faults';

interface Read {
  data?: unknown;
  /** Of what is asked for now; `data` may be of what was asked for before. */
  currentData?: unknown;
  error?: unknown;
  refetch: () => unknown;
}

/**
 * A query as a page reads it: read again in vain, because the line or the server fails, what was there stays, with what is typed in it, and
 * the corner says so. Refused, it is an error as ever.
 */
export function useStanding<Query extends Read>(query: Query): Query {
  const { error, currentData, refetch } = query;
  const stands = error !== undefined && isPassing(error) && currentData !== undefined;
  const message = stands ? faultOf(error).message : null;
  useEffect(() => {
    if (message !== null)
      toast(message, { id: 'not-read-again', action: { label: 'Read again', onClick: () => void refetch() } });
  }, [message, refetch]);
  return stands ? { ...query, data: currentData, error: undefined } : query;
}
