import { lazy, Suspense, useEffect } from 'react';
import { useBlocker } from 'react-router';
import { anyUnsaved, useAnyUnsaved, useLeaving } from '../kit/unsaved';

/** Fetched when something is typed, and there when it is asked. */
const load = () => import('./LeaveQuestion');
const LeaveQuestion = lazy(async () => ({ default: (await load()).LeaveQuestion }));

/** The month a page shows: another one shows other figures, and forms of their own. */
const monthOf = (search: string) => new URLSearchParams(search).get('as-of');

/** Asks before a page, its month, or a form in it, is left in which something is typed and not saved. */
export function LeaveGuard() {
  const typed = useAnyUnsaved();
  const within = useLeaving();
  const blocker = useBlocker(
    ({ currentLocation: from, nextLocation: to }) =>
      anyUnsaved() && (from.pathname !== to.pathname || monthOf(from.search) !== monthOf(to.search)),
  );
  useEffect(() => {
    if (!typed) return;
    void load();
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [typed]);
  const stay = () => {
    within.answer(false);
    blocker.reset?.();
  };
  const leave = () => {
    within.answer(true);
    blocker.proceed?.();
  };
  if (blocker.state !== 'blocked' && !within.waits) return null;
  return (
    <Suspense>
      <LeaveQuestion onStay={stay} onLeave={leave} />
    </Suspense>
  );
}
