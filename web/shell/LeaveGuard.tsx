import { AlertDialog } from 'radix-ui';
import { useEffect } from 'react';
import { useBlocker } from 'react-router';
import { anyUnsaved, useAnyUnsaved, useLeaving } from '../kit/unsaved';

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
    <AlertDialog.Root open onOpenChange={(open) => !open && stay()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-50 bg-black/30" />
        <AlertDialog.Content className="pop fixed left-1/2 top-[140px] w-[420px] -translate-x-1/2 p-5">
          <AlertDialog.Title asChild>
            <h2>Leave without saving?</h2>
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <p>What you typed on this page is not saved yet.</p>
          </AlertDialog.Description>
          <div className="flex gap-3">
            <AlertDialog.Cancel className="button main">Stay</AlertDialog.Cancel>
            <AlertDialog.Action className="button" onClick={leave}>
              Leave
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
