import { LedrinError, type ErrorCode, type Fault } from '../../core/errors/ledrinError';
import { moveRefusal, type Life } from '../../core/life/life';
import { messageOf, showIn } from '../../core/refusals/messages';
import type { Refusal } from '../../core/refusals/refusal';

/** Where the fields of a rule stand in an input, by their name in core; a field that is not named stands under its own name. */
export type Fields = Readonly<Record<string, string>>;

/** Refusals as the faults of an input. */
export function faultsOf(refusals: readonly Refusal[], digits: number, fields: Fields = {}) {
  return refusals.map((it) => ({ field: fields[it.at] ?? it.at, message: messageOf(it, showIn(digits)) }));
}

/** Throws bad input where an input has faults. */
export function assertNoFaults(faults: readonly Fault[]): void {
  const [first] = faults;
  if (first) throw new LedrinError('bad-input', first.message, faults);
}

/** Throws what is refused, if anything is, placed at the fields of the input. */
export function assertAllowed(
  refusals: readonly (Refusal | null)[],
  { digits = 0, fields = {}, code = 'bad-input' }: { digits?: number; fields?: Fields; code?: ErrorCode } = {},
): void {
  const faults = faultsOf(
    refusals.flatMap((it) => it ?? []),
    digits,
    fields,
  );
  const [first] = faults;
  if (first) throw new LedrinError(code, first.message, faults);
}

/** Throws refused where a document in `state` may not make a move of its life. */
export function assertMove<State extends string, Name extends string>(
  life: Life<State, Name>,
  move: Name,
  what: string,
  state: string,
): void {
  assertAllowed([moveRefusal(life, move, what, state as State)], { code: 'refused' });
}

/** Bad input at one field. */
export function fieldError(field: string, message: string): LedrinError {
  return new LedrinError('bad-input', message, [{ field, message }]);
}
