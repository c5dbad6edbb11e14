import { SaidCorner } from '../kit/SaidCorner';
import { lazy, Suspense, useEffect } from 'react';
import { Link, Outlet } from 'react-router';
import { useSessionQuery } from '../ground/api/api';
import { faultOf } from '../ground/faults';
import { mayDo } from '../ground/person';
import { Refused, Waiting } from '../kit/States';
import { PhoneOf } from '../features/daySheets/phone/Phone';
import { forgetPhone, phoneStore } from '../features/daySheets/phone/phoneStore';

const SignInPage = lazy(async () => ({ default: (await import('../features/signIn/SignInPage')).SignInPage }));

/** What stands around day sheets: it opens without a connection for whoever used this phone last. */
export function PhoneFrame() {
  const { data: session, error, refetch } = useSessionQuery();
  useInstallable();
  useEffect(() => {
    document.title = 'Day sheets · Ledrin';
  }, []);
  const signedOut = session !== undefined && session.user === null;
  useEffect(() => {
    if (signedOut) void forgetPhone();
  }, [signedOut]);
  const owner = session?.user?.name ?? (error ? phoneStore.owner() : null);
  if (signedOut)
    return (
      <Suspense fallback={<Waiting what="the sign-in" />}>
        <SignInPage session={session} />
      </Suspense>
    );
  if (session?.user && !mayDo(session.user, 'enter-time'))
    return (
      <main className="page narrow">
        <Refused message={`As ${session.user.role} you enter no time; ask the owner if you should`} />
      </main>
    );
  if (owner === null)
    return (
      <main className="page narrow">
        {error ? <Refused message={faultOf(error).message} onRetry={refetch} /> : <Waiting what="who is here" />}
      </main>
    );
  return (
    <PhoneOf key={owner} owner={owner}>
      <header className="flex items-center gap-3 px-4 py-2 bg-[var(--band)]">
        <Link to="/day-sheets" className="brand no-underline">
          Ledrin
        </Link>
        <span className="note ml-auto truncate">{owner}</span>
        <a href="/" className="button bare">
          Other pages
        </a>
      </header>
      <main>
        <Outlet />
      </main>
      <SaidCorner position="top-center" />
    </PhoneOf>
  );
}

/** Makes the page one that can be put on the phone's first screen, and that opens without a connection. */
function useInstallable(): void {
  useEffect(() => {
    const link = document.createElement('link');
    link.rel = 'manifest';
    link.href = '/day-sheets.webmanifest';
    document.head.append(link);
    // In development there is no worker to register.
    if (import.meta.env.PROD) void navigator.serviceWorker?.register('/day-sheets-worker.js', { scope: '/day-sheets' });
    return () => link.remove();
  }, []);
}
