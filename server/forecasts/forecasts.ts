import { EMPTY_LINE } from '../../core/forecast/estimateAtCompletion';
import { addDays, addMonths, lastDay, periodOf, type PlainDate } from '../../core/calendar/plainDate';
import { known } from '../../core/errors/known';
import type { Fault } from '../../core/errors/ledrinError';
import { forecastFault } from '../../core/forecast/typedForecast';
import { assertOpenDays } from '../ledger/closing';
import { forecastRefusal } from '../../core/forecast/forecastRefusal';
import { messageOf, showIn } from '../../core/refusals/messages';
import { isFinished } from '../../core/progress/workInProgress';
import type { ForecastInput, ForecastView } from '../../wire/forecasts';
import { costCodeIds } from '../costs/costCodes';
import { CostLines } from '../costs/costEntries';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { assertAllowed, assertNoFaults } from '../acts/refused';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { loadPositions } from '../costs/jobPositions';
import type { Command } from '../acts/command';
import { estimatedLines } from '../costs/estimatedLines';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { ForecastTable } from './models';
import { DELETE_FORECASTS, FORECASTS } from './queries';

type Forecast = RowOf<typeof FORECASTS>;

/** What every line of a job will still cost, as said on the day and before; what it comes to is worked by core. */
export async function forecastView(sql: Reader, number: string, on: PlainDate): Promise<ForecastView> {
  const job = await jobByNumber(sql, number, 'job');
  const lastMonthEnd = lastDay(addMonths(periodOf(on), -1));
  const [lines, before, then, forecasts, [position], [positionThen]] = await Promise.all([
    estimatedLines(sql, job, on),
    estimatedLines(sql, job, on, addDays(on, -1)),
    estimatedLines(sql, job, lastMonthEnd),
    sql.all(FORECASTS, [job.id, on]),
    loadPositions(sql, on, job.id),
    loadPositions(sql, lastMonthEnd, job.id),
  ]);
  const [base, lastMonth] = [before, then].map((list) => new Map(list.map((it) => [it.id, it])));
  const entered = new Map(forecasts.filter((it) => it.on === on).map((it) => [it.id, it]));
  // Newest first: of those before the day the first one of a line counts.
  const earlier = new Map(
    forecasts
      .filter((it) => it.on < on)
      .reverse()
      .map((it) => [it.id, it]),
  );
  return {
    seen: digestOf(forecastsOf(forecasts, on)),
    on,
    lines: lines.map(({ id, section, costCode, description, costType, state }) => {
      const [now, last] = [entered.get(id), earlier.get(id)];
      return {
        id,
        section,
        costCode,
        description,
        costType,
        state: base?.get(id)?.state ?? { ...state, forecast: null },
        entered: now ? { method: now.method, value: now.value, note: now.note } : null,
        before: last ? { method: last.method, value: last.value, note: last.note, on: last.on } : null,
        lastMonth: lastMonth?.get(id)?.estimate.amount ?? null,
      };
    }),
    contractSum: position?.position.contractSum ?? 0,
    contractSumLastMonth: positionThen?.position.contractSum ?? 0,
    closed: whyClosed(job, on),
    finished: isFinished(job.finished_on, on),
  };
}

const forecastsOf = (forecasts: readonly Forecast[], on: PlainDate) => forecasts.filter((it) => it.on === on);

const refusalOf = ({ number, status, locked, awarded_on, finished_on }: JobIdentity, on: PlainDate) =>
  forecastRefusal({ number, status, locked, awardedOn: awarded_on, finishedOn: finished_on }, on);

/** Why nothing is forecast on a job, as a page shows it; null where it is. */
function whyClosed(job: JobIdentity, on: PlainDate): string | null {
  const refused = refusalOf(job, on);
  return refused && messageOf(refused, showIn(0));
}

/** Saves what is said of a job on one day, whole. Earlier forecasts stay as they are. Throws conflict where somebody saved it since. */
export async function saveForecast(command: Command, number: string, { on, lines, seen }: ForecastInput): Promise<void> {
  const { sql } = command;
  const job = await jobByNumber(sql, number, 'contract');
  await assertOpenDays(sql, [on], 'on');
  assertAllowed([refusalOf(job, on)], { code: 'refused' });
  const now = forecastsOf(await sql.all(FORECASTS, [job.id, on]), on);
  await assertUnchanged(command, 'This forecast', { subject: `${number}/forecast/${on}`, now, seen });
  const codes = await costCodeIds(sql);
  assertNoFaults(await faultsOf(sql, job, on, lines, codes));
  await sql.run(DELETE_FORECASTS, [job.id, on]);
  const costLines = await CostLines.open(sql, [job.id]);
  const rows = lines.map(({ section, costCode, costType, method, value, note }) => ({
    cost_line_id: costLines.idOf(job.id, section, known(codes, costCode), costType),
    as_of: on,
    method,
    value,
    note,
  }));
  await costLines.flush();
  await sql.insertAll(ForecastTable, rows);
  command.note(`${number}/forecast/${on}`, { lines });
}

async function faultsOf(
  sql: Reader,
  job: JobIdentity,
  on: PlainDate,
  lines: ForecastInput['lines'],
  codes: ReadonlyMap<string, number>,
): Promise<Fault[]> {
  const keyOf = (it: { section: string; costCode: string; costType: string }) =>
    `${it.section}\u001f${it.costCode}\u001f${it.costType}`;
  const states = new Map((await estimatedLines(sql, job, on, addDays(on, -1))).map((it) => [keyOf(it), it.state]));
  const seen = new Set<string>();
  return lines.flatMap((line, i) => {
    const at = (field: string, message: string) => [{ field: `lines.${i}.${field}`, message }];
    if (!codes.has(line.costCode))
      return at('costCode', `There is no cost code ${line.costCode}; add it in Set-up, or choose another`);
    if (seen.has(keyOf(line))) return at('costCode', 'This line has a forecast already; give it one');
    seen.add(keyOf(line));
    const state = states.get(keyOf(line));
    const fault = forecastFault(line, state ?? EMPTY_LINE, on);
    return fault ? at('value', fault) : [];
  });
}
