import { useSessionQuery } from '../ground/api/api';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { NavLink, Outlet, useLocation } from 'react-router';
import { Toaster } from 'sonner';
import { displayPeriod } from '../../core/calendar/displayDate';
import { MeasurePatterns } from '../kit/Measure';
import { Refused, Waiting } from '../kit/States';
import { useAsOf, useKeepMonth } from '../ground/asOf';
import { CommandBox } from './CommandBox';
import { faultOf } from '../ground/faults';
import { KeyList } from './KeyList';
import { Workings } from '../ground/workings/Workings';

/** The order of the navigation is the order of the work. */
const PLACES = [
  ['/jobs', 'Jobs'],
  ['/costs', 'Costs'],
  ['/billing', 'Billing'],
  ['/reports', 'Reports'],
  ['/ledger', 'Ledger'],
  ['/set-up', 'Set-up'],
] as const;

/** The band at the top with the month that rules every figure, and the page beneath it. */
export function Shell() {
  const { data: session, error, refetch } = useSessionQuery();
  const keep = useKeepMonth();
  const [commanding, setCommanding] = useState(false);
  const [listing, setListing] = useState(false);
  const { pathname } = useLocation();
  useHotkeys(
    'ctrl+k, meta+k',
    (event) => {
      event.preventDefault();
      setCommanding(true);
    },
    { enableOnFormTags: true },
  );
  useHotkeys(
    'shift+slash',
    (event) => {
      event.preventDefault();
      setListing(true);
    },
    { useKey: false },
  );
  useHotkeys(
    '?',
    (event) => {
      event.preventDefault();
      setListing(true);
    },
    { useKey: true },
  );
  useEffect(() => {
    const place = PLACES.find(([to]) => pathname.startsWith(to))?.[1];
    document.title = place ? `${place} · Ledrin` : 'Ledrin';
  }, [pathname]);
  if (error)
    return (
      <main className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </main>
    );
  if (!session) return <Waiting what="the books" />;
  return (
    <>
      <header
        className="fixed inset-x-0 top-0 z-50 flex h-[46px] items-center gap-6 border-b px-6"
        style={{ background: 'var(--band)', borderColor: 'var(--rule)' }}
      >
        <NavLink
          to={keep('/')}
          className="no-underline"
          style={{ font: "600 19px/1 'Source Serif 4', serif", color: 'var(--ink)' }}
        >
          Ledrin
        </NavLink>
        <nav aria-label="Places" className="flex h-full items-stretch gap-1">
          {session.company &&
            PLACES.map(([to, name]) => (
              <NavLink
                key={to}
                to={keep(to)}
                className="flex items-center px-2 no-underline"
                style={({ isActive }) => ({
                  color: isActive ? 'var(--accent)' : 'var(--ink)',
                  boxShadow: isActive ? 'inset 0 -3px 0 var(--accent)' : 'none',
                  fontWeight: isActive ? 600 : 400,
                })}
              >
                {name}
              </NavLink>
            ))}
        </nav>
        <div className="ml-auto flex items-center gap-4">
          {session.company && <span className="note max-w-[240px] cut">{session.company.name}</span>}
          {session.company && <MonthChooser />}
          <button type="button" className="press bare" onClick={() => setCommanding(true)} title="Go to anything: Ctrl K">
            Go to …
          </button>
          <button
            type="button"
            className="press bare"
            onClick={() => setListing(true)}
            aria-label="Keys that work here"
            title="Keys that work here"
          >
            ?
          </button>
        </div>
      </header>
      <main className="pt-[46px]">
        <Outlet />
      </main>
      <Workings />
      <MeasurePatterns />
      <CommandBox open={commanding} onOpen={setCommanding} />
      <KeyList open={listing} onOpen={setListing} />
      <Toaster
        position="bottom-left"
        toastOptions={{
          style: { fontFamily: 'inherit', background: 'var(--ink)', color: 'var(--ground)', borderRadius: 3, border: 0 },
        }}
      />
    </>
  );
}

function MonthChooser() {
  const { month, setMonth, move } = useAsOf();
  const { data: session } = useSessionQuery();
  useHotkeys('[', () => move(-1), { useKey: true }, [move]);
  useHotkeys(']', () => move(1), { useKey: true }, [move]);
  const newest = session?.newestMonth;
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Month that rules the page">
      <button type="button" className="press bare" aria-label="A month back" title="A month back: [" onClick={() => move(-1)}>
        ‹
      </button>
      <label className="relative">
        <span className="sr-only">Month</span>
        <input
          type="month"
          className="absolute inset-0 cursor-pointer opacity-0"
          value={month}
          onChange={(event) => event.target.value && setMonth(event.target.value)}
          onClick={(event) => event.currentTarget.showPicker?.()}
        />
        <span
          className="inline-flex h-[30px] items-center border px-3"
          style={{ borderColor: 'var(--rule)', background: 'var(--sheet)', borderRadius: 3 }}
        >
          as of the end of&nbsp;<b>{displayPeriod(month)}</b>
        </span>
      </label>
      <button type="button" className="press bare" aria-label="A month on" title="A month on: ]" onClick={() => move(1)}>
        ›
      </button>
      {newest && newest !== month && (
        <button type="button" className="press bare" onClick={() => setMonth(newest)}>
          to {displayPeriod(newest)}
        </button>
      )}
    </div>
  );
}
