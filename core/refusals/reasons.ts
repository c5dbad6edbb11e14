import { messageOf, type ShowAmount } from './messages';
import type { Refusal } from './refusal';

/** Why each move cannot be made, as a sentence; null where it can. What a view shows of it is what the act would answer. */
export type Reasons<Move extends string> = Record<Move, string | null>;

/** Asks for every move of a life. `show`: how amounts are written. */
export function reasonsOf<Move extends string>(
  life: Readonly<Record<Move, unknown>>,
  refusal: (move: Move) => Refusal | null,
  show: ShowAmount,
): Reasons<Move> {
  const reason = (move: Move): [Move, string | null] => {
    const refused = refusal(move);
    return [move, refused && messageOf(refused, show)];
  };
  return Object.fromEntries((Object.keys(life) as Move[]).map(reason)) as Reasons<Move>;
}
