import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { addDays } from '../../../core/calendar/plainDate';
import { formatScaled } from '../../../core/money/decimal';
import { displayQuantity } from '../../../core/money/display';
import { UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { WageRow, WageStatement } from '../../../wire/payroll';
import { usePayrollSettingQuery, useSavePayrollSettingMutation, useWageStatementQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { Field } from '../../kit/Field';
import { Empty, Refused } from '../../kit/States';

const A_WEEK = 7;

/** Wages paid on a job in a week, by worker: for public work, signed and sent. */
export function WageStatementPage() {
  const { number: job = '' } = useParams();
  const { lastDay } = useAsOf();
  const [params, setParams] = useSearchParams();
  const on = params.get('on') ?? lastDay;
  const statement = useWageStatementQuery({ job, on });
  const to = (next: string) =>
    setParams((before) => new URLSearchParams([...before].filter(([key]) => key !== 'on').concat([['on', next]])), {
      replace: true,
    });
  return (
    <Loaded of={statement} what="the statement of wages">
      {(data) => (
        <>
          <div className="mb-3 flex items-center gap-3">
            <h2 className="m-0 grow">Statement of wages</h2>
            <button type="button" className="button" aria-label="The week before" onClick={() => to(addDays(data.week, -A_WEEK))}>
              ‹
            </button>
            <b className="min-w-[230px] text-center">
              {displayDate(data.week)} to {displayDate(addDays(data.week, A_WEEK - 1))}
            </b>
            <button type="button" className="button" aria-label="The week after" onClick={() => to(addDays(data.week, A_WEEK))}>
              ›
            </button>
            <Link className="button main" reloadDocument to={hrefOf(CALLS.wageStatementPdf, { job, on })}>
              PDF
            </Link>
            <Link className="button" reloadDocument to={hrefOf(CALLS.wageStatementCsv, { job, on })}>
              CSV
            </Link>
          </div>
          {data.rows.length === 0 ? (
            <Empty title="No time of this job is posted of this week">
              <p className="note m-0">Another week, or post the time of this one first.</p>
            </Empty>
          ) : (
            <Wages statement={data} />
          )}
          <May do="set-up">
            <Declaration />
          </May>
        </>
      )}
    </Loaded>
  );
}

const DAYS = [0, 1, 2, 3, 4, 5, 6];

function Wages({ statement: { week, rows, hours, gross } }: { statement: WageStatement }) {
  const { exact, code } = useCurrency();
  const shown = (value: number) => (value === 0 ? '' : displayQuantity(value));
  const rate = (it: WageRow) => `${formatScaled(it.rate, UNIT_COST_DECIMALS)}${it.byPiece ? ' a piece' : ''}`;
  return (
    <table className="ledger static-foot">
      <thead>
        <tr>
          <th className="text-left">Worker</th>
          <th className="text-left">Wage class</th>
          <th className="text-left">Pay class</th>
          {DAYS.map((i) => (
            <th key={i} className="text-right">
              {displayDate(addDays(week, i)).replace(/ \d{4}$/, '')}
            </th>
          ))}
          <th className="text-right">Hours</th>
          <th className="text-right">Rate</th>
          <th className="text-right">Pieces</th>
          <th className="text-right">of which top-up</th>
          <th className="text-right">Gross, {code}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((it) => (
          <tr key={JSON.stringify([it.employee, it.wageClass, it.pay, it.rate, it.byPiece])}>
            <td className="whitespace-nowrap">{it.name}</td>
            <td>{it.wageClass}</td>
            <td>{it.pay}</td>
            {DAYS.map((i) => (
              <td key={i} className="figure">
                {shown(it.days[i] ?? 0)}
              </td>
            ))}
            <td className="figure">{displayQuantity(it.hours)}</td>
            <td className="figure">{rate(it)}</td>
            <td className="figure">{shown(it.units)}</td>
            <td className="figure">{it.topUp === 0 ? '' : exact(it.topUp)}</td>
            <td className="figure">{exact(it.gross)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={3}>Total</td>
          {DAYS.map((i) => (
            <td key={i} className="figure">
              {shown(rows.reduce((sum, it) => sum + (it.days[i] ?? 0), 0))}
            </td>
          ))}
          <td className="figure">{displayQuantity(hours)}</td>
          <td colSpan={3} />
          <td className="figure">{exact(gross)}</td>
        </tr>
      </tfoot>
    </table>
  );
}

/** What the company declares when it signs a statement: its own text, on every one of them. */
function Declaration() {
  const { data } = usePayrollSettingQuery();
  const [typed, setTyped] = useState<string | null>(null);
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSavePayrollSettingMutation();
  if (!data) return null;
  const text = typed ?? data.declaration;
  const saveIt = async () => {
    const body = { seen: data.seen, columns: data.columns, declaration: text };
    if (await attempt(() => save({ body }).unwrap(), 'Declaration saved')) setTyped(null);
  };
  return (
    <section aria-label="Declaration" className="mt-5 max-w-[760px]">
      <Field label="What the company declares on every statement, above the signature">
        <textarea rows={3} value={text} onChange={(event) => setTyped(event.target.value)} />
      </Field>
      <button
        type="button"
        className="button mt-2"
        disabled={text === data.declaration || isLoading}
        onClick={() => void saveIt()}
      >
        Save declaration
      </button>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
