import { refuse, type Refusal } from '../refusals/refusal';

/** What may be done with a document in which states, and what it becomes; `to` null: it is deleted, `same`: it stays as it is. */
export interface Move<State extends string> {
  from: readonly State[];
  to: State | 'same' | null;
  /** What is said where it is in another state: "only a draft can be changed". */
  only: string;
}

/** The life of a kind of document: its moves by name. States that no move leads out of are for ever. */
export type Life<State extends string, Name extends string> = Readonly<Record<Name, Move<State>>>;

/** Why a document in `state` may not make a move; null where it may. `what` names it: "Application 3". */
export function moveRefusal<State extends string, Name extends string>(
  life: Life<State, Name>,
  move: Name,
  what: string,
  state: State,
): Refusal | null {
  const { from, only } = life[move];
  return from.includes(state) ? null : refuse('not-in-this-state', 'status', { what, state, only });
}

/** Which moves a document in `state` may make, by name. */
export function movesFrom<State extends string, Name extends string>(
  life: Life<State, Name>,
  state: State,
): Record<Name, boolean> {
  const names = Object.keys(life) as Name[];
  return Object.fromEntries(names.map((name) => [name, life[name].from.includes(state)])) as Record<Name, boolean>;
}
