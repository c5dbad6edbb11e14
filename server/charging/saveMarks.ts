import type { PlainDate } from '../../core/calendar/plainDate';
import { firstOpenDay } from '../../core/ledger/openDay';
import type { RowOf } from '../db/fields';
import { countsFrom } from '../../core/charging/chargeMark';
import { refuse } from '../../core/refusals/refusal';
import { plural } from '../../core/names/plural';
import type { MarksInput } from '../../wire/charging';
import { assertAllowed, assertNoFaults, fieldError } from '../acts/refused';
import type { Command } from '../acts/command';
import { jobByNumber } from '../jobs/jobByNumber';
import { assertOfTeam } from '../jobs/restricted';
import { lockedJob } from '../ledger/gate';
import { closedTo } from '../ledger/closing';
import { chargedInClosed, rechargeEntries } from './marks';
import { ChargeMarkTable } from './models';
import { CHARGE_ENTRIES_OF_IDS } from './queries';

/** Says of entries of a job, many at once, whether, from when, at which markup and in which words they are charged. */
export async function saveMarks(command: Command, number: string, input: MarksInput): Promise<{ marked: number }> {
  const { sql, actor } = command;
  const job = await jobByNumber(sql, number, 'job');
  assertAllowed([await lockedJob(sql, [job.id])], { code: 'refused' });
  await assertOfTeam(sql, actor, [job.id]);
  if (input.entries.length === 0) throw fieldError('entries', 'Choose at least one entry');
  const entries = await sql.all(CHARGE_ENTRIES_OF_IDS, [JSON.stringify(input.entries)]);
  const there = new Map(entries.map((it) => [it.id, it]));
  assertNoFaults(
    input.entries.flatMap((id, i) => {
      const entry = there.get(id);
      if (!entry || entry.job !== number)
        return [{ field: `entries.${i}`, message: `There is no entry ${id} on job ${number} any more; reload the page` }];
      return [];
    }),
  );
  assertAllowed(
    entries.map((it) =>
      it.takenBy === null
        ? null
        : refuse('mark-invoiced', 'entries', { entry: it.reference || it.costCode, invoice: it.takenBy }),
    ),
    { code: 'refused' },
  );
  const closed = await closedTo(sql);
  /** A mark that is new counts in open books; one that counts already stays as it is in closed ones. */
  const fromOf = (it: (typeof entries)[number]) => {
    if (input.from !== undefined) return input.from;
    if (it.chargeFrom !== null || it.mark !== 'no' || (input.mark ?? 'no') === 'no') return it.chargeFrom;
    const open = firstOpenDay(it.postedOn, closed);
    return open === it.postedOn ? null : open;
  };
  assertAllowed(
    entries.map((it) => (closed === null ? null : inClosed(it, fromOf(it), input, closed))),
    { code: 'refused' },
  );
  await sql.save(
    ChargeMarkTable,
    entries.map((it) => {
      const from = fromOf(it);
      return {
        cost_entry_id: it.id,
        job_id: it.jobId,
        mark: input.mark ?? it.mark,
        charge_from: from,
        counts_from: countsFrom(it.postedOn, from),
        markup: input.markup === undefined ? it.markup : input.markup,
        wording: input.wording ?? it.wording,
        charge: it.charge,
      };
    }),
    ['cost_entry_id'],
  );
  await rechargeEntries(
    sql,
    entries.map((it) => it.id),
  );
  command.note(number, { ...input, entries: plural(entries.length, 'entry', 'entries') });
  return { marked: entries.length };
}

/** Why what counts in closed books is not marked otherwise: on neither side of the change may a day of theirs say something else. */
function inClosed(
  it: Pick<RowOf<typeof CHARGE_ENTRIES_OF_IDS>, 'mark' | 'postedOn' | 'chargeFrom' | 'markup' | 'reference'>,
  from: PlainDate | null,
  input: MarksInput,
  closed: PlainDate,
) {
  const [was, now] = [it.mark, input.mark ?? it.mark];
  const [before, after] = [countsFrom(it.postedOn, it.chargeFrom), countsFrom(it.postedOn, from)];
  const markup = input.markup === undefined ? it.markup : input.markup;
  if (was === now && before === after && markup === it.markup) return null;
  if (was === 'yes' && before <= closed) return chargedInClosed({ reference: it.reference, countsFrom: before }, closed);
  if (now === 'yes' && after <= closed) return chargedInClosed({ reference: it.reference, countsFrom: after }, closed);
  return null;
}
