import { displayDate } from '../../core/calendar/displayDate';
import { addMonths, lastDay, periodOf } from '../../core/calendar/plainDate';
import { present } from '../../core/errors/known';
import { sum } from '../../core/money/cents';
import { ratio } from '../../core/money/rate';
import { inJob } from '../../core/places/place';
import { MOVE_FIGURES, whyMoved, type MoveFigure } from '../../core/workings/moveWorkings';
import { money, percent, type Operand, type Workings } from '../../core/workings/workings';
import { estimatedLines } from '../costs/estimatedLines';
import { loadPositions } from '../costs/jobPositions';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { nameOf, ofJob } from './figureFamily';
import { chargedPosition } from './ofDaywork';
import { lineName } from './lineName';
import { PRICE_APPROVED_BETWEEN } from './queries';

interface Asked {
  sql: Reader;
  job: JobIdentity;
  asOf: string;
  /** The end of the month before. */
  since: string;
}

const EXPLAIN: Record<MoveFigure, (asked: Asked) => Promise<Pick<Workings, 'rule' | 'operands' | 'result'>>> = {
  marginMoved,
  profitMoved,
  contractSumMoved,
  estimateMoved,
};

/** What moved on a job since the end of the month before, down to the lines, the change orders and the forecasts. */
export const movesOfJob = ofJob(Object.keys(MOVE_FIGURES), async (sql, job, { figure }, asOf) => {
  const name = figure as MoveFigure;
  const since = lastDay(addMonths(periodOf(asOf), -1));
  const explained = await EXPLAIN[name]({ sql, job, asOf, since });
  const unit = name === 'marginMoved' ? ('percent' as const) : ('money' as const);
  return { title: MOVE_FIGURES[name], subject: `${nameOf(job)}, since ${displayDate(since)}`, unit, ...explained };
});

const opens = (asked: Asked, figure: string, on?: string) => ({
  figure: { figure, job: asked.job.number, ...(on === undefined ? {} : { on }) },
});

/** Contract sum and estimate on both days. */
async function positions({ sql, job, asOf, since }: Asked) {
  const [[now], [then]] = [await loadPositions(sql, asOf, job.id), await loadPositions(sql, since, job.id)];
  return { now: present(now).progress, then: present(then).progress };
}

async function marginMoved(asked: Asked) {
  const { now, then } = await positions(asked);
  const before = ratio(then.contractSum - then.estimate, then.contractSum);
  return {
    rule: 'Margin now less margin at the end of the month before. What moved it: contract sum and estimate at completion.',
    operands: [
      percent('Margin', now.margin, '', opens(asked, 'margin')),
      percent(`Margin on ${displayDate(asked.since)}`, before, '−', opens(asked, 'margin', asked.since)),
      money('Contract sum moved by', now.contractSum - then.contractSum, '', opens(asked, 'contractSumMoved')),
      money('Estimate at completion moved by', now.estimate - then.estimate, '', opens(asked, 'estimateMoved')),
    ],
    result: now.margin - before,
  };
}

async function profitMoved(asked: Asked) {
  const { now, then } = await positions(asked);
  return {
    rule: 'What the contract sum moved by less what the estimate at completion moved by.',
    operands: [
      money(MOVE_FIGURES.contractSumMoved, now.contractSum - then.contractSum, '', opens(asked, 'contractSumMoved')),
      money(MOVE_FIGURES.estimateMoved, now.estimate - then.estimate, '−', opens(asked, 'estimateMoved')),
    ],
    result: now.contractSum - now.estimate - (then.contractSum - then.estimate),
  };
}

async function contractSumMoved({ sql, job, asOf, since }: Asked) {
  const approved = await sql.all(PRICE_APPROVED_BETWEEN, [job.id, since, asOf]);
  const byChange = approved.map(({ number, decidedOn, amount }): Operand =>
    money(`${number}, approved ${displayDate(decidedOn)}`, amount, '+', {
      to: { place: 'change', job: job.number, document: number },
    }),
  );
  const [now, then] = [await chargedPosition(sql, job, asOf), await chargedPosition(sql, job, since)];
  // A ceiling stays what it is, whatever is charged.
  const daywork = now.charged && now.charged.ceiling !== null ? 0 : now.daywork.charge - then.daywork.charge;
  const byDaywork = daywork === 0 ? [] : [money('Daywork, at its charge', daywork, '+', { to: inJob(job, 'charging') })];
  return {
    rule: 'Change orders approved, and what was charged as daywork, since the end of the month before.',
    operands: [...byChange, ...byDaywork],
    result: sum(approved.map((it) => it.amount)) + daywork,
  };
}

async function estimateMoved({ sql, job, asOf, since }: Asked) {
  const [now, then] = [await estimatedLines(sql, job, asOf), await estimatedLines(sql, job, since)];
  const before = new Map(then.map((it) => [it.id, it]));
  const { charged, cost } = await chargedPosition(sql, job, asOf);
  if (charged && charged.ceiling === null) {
    const costs = now.map((line) => ({ line, moved: line.state.cost - (before.get(line.id)?.state.cost ?? 0) }));
    return {
      rule: 'A charged job without a ceiling comes to what it has cost: its cost since the end of the month before.',
      operands: costs.flatMap(({ line, moved }) =>
        moved === 0
          ? []
          : [money(`${lineName(line)}: cost`, moved, '+', { figure: { figure: 'lineCost', job: job.number, line: line.id } })],
      ),
      result: cost - (await chargedPosition(sql, job, since)).cost,
    };
  }
  const lines = now.flatMap((line): Operand[] => {
    const was = before.get(line.id) ?? null;
    const moved = line.estimate.amount - (was?.estimate.amount ?? 0);
    if (moved === 0) return [];
    const why = whyMoved(was, line, since);
    const label = [lineName(line), why].filter(Boolean).join(': ');
    return [money(label, moved, '+', { figure: { figure: 'lineEstimate', job: job.number, line: line.id } })];
  });
  return {
    rule: 'What the estimate of each cost line is now less what it was at the end of the month before, and why.',
    operands: lines,
    result: sum(now.map((it) => it.estimate.amount)) - sum(then.map((it) => it.estimate.amount)),
  };
}
