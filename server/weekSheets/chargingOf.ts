import { UNSAID, type Charging } from '../../core/charging/chargeMark';
import { marksOfTime } from '../charging/marks';
import type { Reader } from '../db/sql';
import type { PostedPart } from './postTime';

/** What is said of charging each line; one that reverses another has its mark as it is now. */
export async function chargingOf(sql: Reader, lines: readonly PostedPart[]): Promise<Map<number, Charging>> {
  const reversed = await marksOfTime(
    sql,
    lines.flatMap((it) => it.of.reverses?.id ?? []),
  );
  return new Map(
    lines.map(({ id, of }) => [
      id,
      of.reverses
        ? (reversed.get(of.reverses.id) ?? { ...UNSAID, mark: 'no' })
        : { mark: of.charge, from: of.chargeFrom ?? null, markup: of.chargeMarkup ?? null, wording: '' },
    ]),
  );
}
