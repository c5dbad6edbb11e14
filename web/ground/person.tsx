import type { ReactNode } from 'react';
import { hasRight, type Right } from '../../core/rights/rights';
import type { SignedInView } from '../../wire/users';
import { useSessionQuery } from './api/api';

/** Who is signed in; null for nobody. */
export function usePerson(): SignedInView | null {
  return useSessionQuery().data?.user ?? null;
}

/** Tells what whoever is signed in may do: what may not be done is not offered. The server refuses it all the same. */
export function useMay(): (right: Right) => boolean {
  const person = usePerson();
  return (right) => hasRight(person, right);
}

/** Shows what is in it to those with a right. */
export function May({ do: right, children }: { do: Right; children: ReactNode }) {
  return useMay()(right) ? children : null;
}
