import { withDisplayDates } from '../../core/calendar/displayDate';
import type { Fault } from '../../core/errors/ledrinError';
import type { FaultReply } from '../../wire/fault';

export interface ShownFault {
  message: string;
  faults: readonly Fault[];
}

/** What the server said, or that it could not be reached; never an empty apology. */
export function faultOf(error: unknown): ShownFault {
  const { data, status } = (error ?? {}) as { data?: FaultReply; status?: number | string };
  if (data?.message)
    return {
      message: withDisplayDates(data.message),
      // Of a file it is said how its dates are to be written.
      faults: (data.faults ?? []).map((it) => (/\.csv\b/.test(it.field) ? it : { ...it, message: withDisplayDates(it.message) })),
    };
  if (status === 'FETCH_ERROR')
    return { message: 'No connection to the server. What you entered is still here; try again.', faults: [] };
  return { message: 'The answer could not be read. Reload the page; what is posted is safe.', faults: [] };
}

/** Whether the line or the server failed, and not what was asked: what is shown may stay. */
export function isPassing(error: unknown): boolean {
  const { status } = (error ?? {}) as { status?: number | string };
  return typeof status !== 'number' || status >= 500;
}

/** Whether something was refused because somebody else saved it since it was opened. */
export function isConflict(error: unknown): boolean {
  return ((error ?? {}) as { data?: FaultReply }).data?.code === 'conflict';
}
