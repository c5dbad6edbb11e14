import { createContext, useContext, type KeyboardEvent, type ReactNode } from 'react';
import { NavLink } from 'react-router';
import type { Part } from '../../core/rights/parts';
import type { Right } from '../../core/rights/rights';
import { useWithMonth } from './asOf';

/** A page of the product as links, the command box and the band know it. */
export interface Place {
  path: string;
  title: string;
  /** The place in the band at the top under which it stands. */
  band: string;
  /** Stands in the second row of its band. */
  inRow: boolean;
  /** The right, or the part of the work, it is offered to. */
  who: Right | Part;
}

/** A part of a job's page. */
export interface JobPart {
  path: string;
  title: string;
  /** Has no tab of its own: it is reached from another part. */
  inner: boolean;
  /** The right, or the part of the work, it is offered to. */
  who: Right | Part;
}

interface Places {
  places: readonly Place[];
  jobParts: readonly JobPart[];
}
const Registered = createContext<Places>({ places: [], jobParts: [] });
export const PlacesProvider = Registered.Provider;

export function usePlaces(): Places {
  return useContext(Registered);
}

/** Left and right lead along a row of links. */
function moveAlong(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (step === undefined) return;
  const links = [...event.currentTarget.querySelectorAll('a')];
  links[links.indexOf(event.target as HTMLAnchorElement) + step]?.focus();
  event.preventDefault();
}

export interface RowLink {
  to: string;
  text: string;
  mark?: string;
  end?: boolean;
}

/** A row of links in which the current one is underlined; the one style of every second row. */
export function LinkRow({
  label,
  links,
  children,
}: {
  label: string;
  links: readonly RowLink[];
  /** Stands after them. */
  children?: ReactNode;
}) {
  const withMonth = useWithMonth();
  return (
    <nav aria-label={label} className="row-links" onKeyDown={moveAlong}>
      {links.map(({ to, text, mark, end = false }) => (
        <NavLink key={to} end={end} to={withMonth(to)}>
          {text}
          {mark && <span className="note"> {mark}</span>}
        </NavLink>
      ))}
      {children}
    </nav>
  );
}
