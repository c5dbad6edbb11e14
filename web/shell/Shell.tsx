import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { matchPath, NavLink, Outlet, useLocation } from 'react-router';
import { useSessionQuery } from '../ground/api/api';
import { useWithMonth } from '../ground/asOf';
import { faultOf } from '../ground/faults';
import { WaitingCount } from '../ground/WaitingLine';
import { LinkRow, PlacesProvider } from '../ground/places';
import { Drawer } from '../ground/workings/Drawer';
import { useStanding } from '../ground/useStanding';
import { MeasurePatterns } from '../kit/Measure';
import { Refused, Waiting } from '../kit/States';
import { CommandDoor, reachForCommands } from './CommandDoor';
import { LeaveGuard } from './LeaveGuard';
import { MonthChooser } from './MonthChooser';
import type { Part } from '../../core/rights/parts';
import type { Right } from '../../core/rights/rights';
import { mayDo, useMay } from '../ground/person';
import { JOB_PARTS } from './partsOfJobs';
import { bandsOf, PLACES } from './places';
import { useSelector } from 'react-redux';
import type { RootState } from '../ground/api/store';
import { SaidCorner } from '../kit/SaidCorner';
import { PrintHead } from './PrintHead';
import { PersonMenu } from './PersonMenu';
import { useFocusStays } from './useFocusStays';
import { usePageKeys } from './usePageKeys';

const KeyList = lazy(async () => ({ default: (await import('./KeyList')).KeyList }));
const AskApproval = lazy(async () => ({ default: (await import('./AskApproval')).AskApproval }));
const PAGE = 'page';
const SignInPage = lazy(async () => ({ default: (await import('../features/signIn/SignInPage')).SignInPage }));

/** The band at the top with the month that every figure is as of, and the page beneath it. */
export function Shell() {
  const { data: session, error, refetch } = useStanding(useSessionQuery());
  const [open, setOpen] = useState<'commands' | 'keys' | null>(null);
  useOpeningKeys(setOpen);
  usePageKeys();
  useFocusStays(PAGE);
  const { pathname } = useLocation();
  // Once somebody has worked here, a session that ends leaves the page as it is, under the sheet to sign in on.
  const [worked, setWorked] = useState<string | null>(null);
  const name = session?.user?.name ?? null;
  if (name !== null && worked === null) setWorked(name);
  // Somebody else who signs in there sees nothing of it.
  useEffect(() => {
    if (name !== null && worked !== null && name !== worked) window.location.assign('/');
  }, [name, worked]);
  const approvalNeeded = useSelector((state: RootState) => state.approval.needed !== null);
  const user = session?.user ?? null;
  const offered = useMemo(() => {
    const of = <It extends { who: Right | Part }>(all: readonly It[]) => all.filter((it) => user && mayDo(user, it.who));
    return { places: of(PLACES), jobParts: of(JOB_PARTS) };
  }, [user]);
  const band = PLACES.find(({ path }) => matchPath({ path, end: true }, pathname))?.band ?? bandOf(pathname);
  useEffect(() => {
    document.title = band ? `${band} · Ledrin` : 'Ledrin';
  }, [band]);
  if (error)
    return (
      <main className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </main>
    );
  if (!session) return <Waiting what="the company" />;
  if (!session.user && worked === null)
    return (
      <Suspense fallback={<Waiting what="the sign-in" />}>
        <SignInPage session={session} />
      </Suspense>
    );
  return (
    <PlacesProvider value={offered}>
      {!session.user && (
        <div
          className="fixed inset-0 z-[60] overflow-auto bg-[var(--ground)]"
          role="dialog"
          aria-modal="true"
          aria-label="Sign in"
        >
          <Suspense>
            <SignInPage session={session} inTheMidst />
          </Suspense>
        </div>
      )}
      <SkipLink />
      <Band company={session.company?.name ?? null} band={band} onOpen={setOpen} />
      <main className="pt-[46px]">
        <PrintHead session={session} />
        {session.company && <SecondRow band={band} />}
        {session.troubles.length > 0 && (
          <div role="alert" className="border-b border-[var(--loss)] bg-[var(--loss-soft)] px-5 py-1">
            {session.troubles.map((it) => (
              <p key={it} className="m-0">
                {it}.
              </p>
            ))}
          </div>
        )}
        <div id={PAGE} tabIndex={-1} className="outline-none">
          <Suspense fallback={<Waiting what="the page" />}>
            <Outlet />
          </Suspense>
        </div>
      </main>
      <Drawer />
      <MeasurePatterns />
      {open === 'commands' && <CommandDoor onOpen={(stays) => !stays && setOpen(null)} />}
      <Suspense>{open === 'keys' && <KeyList open onOpen={(stays) => !stays && setOpen(null)} />}</Suspense>
      <Suspense>{approvalNeeded && <AskApproval />}</Suspense>
      <LeaveGuard />
      <SaidCorner />
    </PlacesProvider>
  );
}

/** The first stop of Tab: past the band and the row of parts, to what is typed or read. Seen only while it has the focus. */
function SkipLink() {
  return (
    <a
      href={`#${PAGE}`}
      className="skip-link"
      onClick={(event) => {
        event.preventDefault();
        document.getElementById(PAGE)?.focus();
      }}
    >
      Skip to the page
    </a>
  );
}

function bandOf(pathname: string): string | undefined {
  return bandsOf(PLACES).find(({ path }) => pathname.startsWith(`/${path.split('/')[1]}`))?.name;
}

function useOpeningKeys(open: (what: 'commands' | 'keys') => void): void {
  const opens = (what: 'commands' | 'keys') => (event: KeyboardEvent) => {
    event.preventDefault();
    open(what);
  };
  useEffect(() => {
    const reach = ({ key }: KeyboardEvent) => (key === 'Control' || key === 'Meta') && reachForCommands();
    document.addEventListener('keydown', reach);
    return () => document.removeEventListener('keydown', reach);
  }, []);
  useHotkeys('ctrl+k, meta+k', opens('commands'), { enableOnFormTags: true });
  useHotkeys('shift+slash', opens('keys'), { useKey: false });
  useHotkeys('?', opens('keys'), { useKey: true });
}

function Band({
  company,
  band,
  onOpen,
}: {
  company: string | null;
  band: string | undefined;
  onOpen: (what: 'commands' | 'keys') => void;
}) {
  const withMonth = useWithMonth();
  const may = useMay();
  const reads = may('read-jobs');
  return (
    <header className="band">
      <NavLink to={withMonth('/')} className="brand">
        Ledrin
      </NavLink>
      <nav aria-label="Main navigation" className="band-links">
        {company !== null &&
          bandsOf(PLACES.filter((it) => may(it.who))).map(({ name, path }) => (
            <NavLink
              key={name}
              to={withMonth(path)}
              className={name === band ? 'current' : ''}
              aria-current={name === band ? 'page' : false}
            >
              {name}
            </NavLink>
          ))}
      </nav>
      <div className="ml-auto flex min-w-0 items-center gap-4 whitespace-nowrap max-[1180px]:gap-1.5">
        {company !== null && (
          <span className="note min-w-0 truncate max-w-[200px] max-[1180px]:hidden" title={company}>
            {company}
          </span>
        )}
        {company !== null && reads && <WaitingCount />}
        {company !== null && reads && <MonthChooser />}
        {reads && (
          <button
            type="button"
            className="button bare"
            onPointerEnter={reachForCommands}
            onClick={() => onOpen('commands')}
            title="Go to anything: Ctrl K"
          >
            Go to …
          </button>
        )}
        <button
          type="button"
          className="button bare"
          onClick={() => onOpen('keys')}
          aria-label="Keyboard shortcuts"
          title="Keyboard shortcuts"
        >
          ?
        </button>
        <PersonMenu />
      </div>
    </header>
  );
}

/** The places of a band, where it has several and this is one of them. */
function SecondRow({ band }: { band: string | undefined }) {
  const { pathname } = useLocation();
  const may = useMay();
  const places = PLACES.filter((it) => it.band === band && it.inRow && may(it.who));
  const isPlace = PLACES.some(({ path, band: own }) => own === band && matchPath({ path, end: true }, pathname));
  if (places.length < 2 || !isPlace) return null;
  return (
    <div className="second-row">
      <LinkRow
        label={band ?? ''}
        links={places.map(({ path, title }) => ({
          to: path,
          text: title,
          // What lies beneath a place belongs to it, unless it is a place of the row itself.
          end: places.some((it) => it.path.startsWith(`${path}/`)),
        }))}
      />
    </div>
  );
}
