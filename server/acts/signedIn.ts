import type { Person } from '../../core/rights/rights';
import type { Part } from '../../core/rights/parts';

/** Somebody who is signed in, and the session. */
export interface SignedIn extends Person {
  id: number;
  email: string;
  session: number;
  /** A code of a second device is asked for at each sign-in. */
  secondFactor: boolean;
  narrowed?: readonly Part[];
}
