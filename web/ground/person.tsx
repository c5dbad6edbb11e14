import type { ReactNode } from 'react';
import { PARTS, type Part } from '../../core/rights/parts';
import { hasRight, isTaken, type Right } from '../../core/rights/rights';
import type { SignedInView } from '../../wire/users';
import { useSessionQuery } from './api/api';

/** Who is signed in; null for nobody. */
export function usePerson(): SignedInView | null {
  return useSessionQuery().data?.user ?? null;
}

/** Tells what whoever is signed in may do: what may not be done is not offered. The server refuses it all the same. */
export function useMay(): (what: Right | Part) => boolean {
  const person = usePerson();
  return (what) => mayDo(person, what);
}

/** The same, of somebody. */
export function mayDo(person: Pick<SignedInView, 'role' | 'narrowed'> | null, what: Right | Part): boolean {
  if (person === null) return what === 'open';
  const needs = what in PARTS ? PARTS[what as Part].needs : (what as Right);
  return hasRight(person, needs) && !isTaken(person, what);
}

/** Shows what is in it to those with a right. */
export function May({ do: what, children }: { do: Right | Part; children: ReactNode }) {
  return useMay()(what) ? children : null;
}
