import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { formatPercentShortest } from '../../../core/money/rate';
import type { RateFinding } from '../../../wire/labourLists';
import { useFindRateQuery, useLabourListQuery, useListsQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { Choice } from '../../kit/choice/Choice';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { readDate } from '../../kit/typed/readDate';
import { LabourLinks } from './LabourListPage';
import { rateText, RungTable } from './RateOfLine';

const NOBODY = { employee: '', job: '', section: '', workKind: '', wageClass: '' };

/** Employee, job, section, kind of work and day in; rate, burden and cost out, with how they are found. */
export function RateFinderPage() {
  const { asOf, month, lastDay } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const employees = useLabourListQuery({ list: 'employees' });
  const { data: kinds } = useLabourListQuery({ list: 'work-kinds' });
  const [asked, setAsked] = useState(NOBODY);
  const [typed, setTyped] = useState(displayDate(lastDay));
  const on = readDate(typed, month);
  const people = (employees.data?.rows ?? []) as { employee: string; name: string; wageClass: string }[];
  const employee = asked.employee || (people[0]?.employee ?? '');
  const set = (key: keyof typeof NOBODY) => (value: string) =>
    setAsked({ ...asked, [key]: value, ...(key === 'job' ? { section: '' } : {}) });
  const none = (text: string) => ['', text] as const;
  const sections = lists?.jobs.find((it) => it.number === asked.job)?.sections ?? [];
  const classes = [...new Set(people.map((it) => it.wageClass).filter(Boolean))].sort();
  const kindRows = (kinds?.rows ?? []) as { workKind: string; description: string }[];
  return (
    <div className="page">
      <PageHead title="Labour" />
      <LabourLinks />
      <Loaded of={employees} what="the employees">
        {() =>
          people.length === 0 ? (
            <Empty title="No employees yet">
              <p className="note m-0">Enter them in the list Employees, or paste them there from a spreadsheet.</p>
            </Empty>
          ) : (
            <>
              <div className="mb-4 grid max-w-[980px] grid-cols-[1.4fr_1.4fr_1fr_1fr_1fr_150px] gap-3">
                <Field label="Employee">
                  <Choice
                    value={employee}
                    options={people.map((it) => [it.employee, `${it.employee} ${it.name}`] as const)}
                    onChange={set('employee')}
                  />
                </Field>
                <Field label="Job">
                  <Choice
                    value={asked.job}
                    options={[
                      none('no job'),
                      ...(lists?.jobs ?? []).map((it) => [it.number, `${it.number} ${it.name}`] as const),
                    ]}
                    onChange={set('job')}
                  />
                </Field>
                <Field label="Section">
                  <Choice
                    value={asked.section}
                    options={[none('none'), ...sections.map((it) => [it, it] as const)]}
                    onChange={set('section')}
                  />
                </Field>
                <Field label="Kind of work">
                  <Choice
                    value={asked.workKind}
                    options={[none('none'), ...kindRows.map((it) => [it.workKind, it.description] as const)]}
                    onChange={set('workKind')}
                  />
                </Field>
                <Field label="Wage class of the line">
                  <Choice
                    value={asked.wageClass}
                    options={[none("the employee's"), ...classes.map((it) => [it, it] as const)]}
                    onChange={set('wageClass')}
                  />
                </Field>
                <Field label="Day" fault={on ? undefined : 'Enter a date, e.g. 1 Apr 2031'}>
                  <DayInput value={typed} month={month} onText={setTyped} />
                </Field>
              </div>
              {on && employee && <Found asked={{ ...asked, employee }} on={on} />}
            </>
          )
        }
      </Loaded>
    </div>
  );
}

function Found({ asked, on }: { asked: typeof NOBODY; on: string }) {
  const found = useFindRateQuery({ ...asked, on });
  return (
    <Loaded of={found} what="the rate">
      {(finding) => (
        <div className="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-8">
          <Rungs finding={finding} />
          <Costs finding={finding} />
        </div>
      )}
    </Loaded>
  );
}

function Rungs({ finding: { rate, looked, wageClass } }: { finding: RateFinding }) {
  const { code } = useCurrency();
  return (
    <section aria-label="How the rate is found">
      <p className="m-0 mb-2 text-[15px]">
        {rate === null ? (
          <b className="text-[var(--loss)]">No rate on this day: time is refused until there is one</b>
        ) : (
          <>
            Rate an hour, {code} <b className="figure">{rateText(rate)}</b>
          </>
        )}{' '}
        <span className="note">{wageClass ? `wage class ${wageClass}` : 'no wage class'}</span>
      </p>
      <RungTable looked={looked} />
    </section>
  );
}

function Costs({ finding: { costs } }: { finding: RateFinding }) {
  const { exact, code } = useCurrency();
  if (costs.length === 0) return null;
  const burdens = costs[0]?.burdens ?? [];
  return (
    <section aria-label="What an hour costs">
      <p className="m-0 mb-2 text-[15px]">What one hour costs, {code}</p>
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th className="text-left">Pay class</th>
            {costs.map((it) => (
              <th key={it.pay} className="text-right">
                {it.pay}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>Pay</td>
            {costs.map((it) => (
              <td key={it.pay} className="figure">
                {exact(it.payAmount)}
              </td>
            ))}
          </tr>
          {burdens.map(({ burden, row }, i) => (
            <tr key={burden}>
              <td>
                {burden} <span className="note">{saidOf(row)}</span>
              </td>
              {costs.map((it) => (
                <td key={it.pay} className="figure">
                  {exact(it.burdens[i]?.amount ?? 0)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>Cost</td>
            {costs.map((it) => (
              <td key={it.pay} className="figure">
                {exact(it.payAmount + it.burden)}
              </td>
            ))}
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

/** What a burden comes from, in words. */
function saidOf({ percent, perHour, onPremium }: RateFinding['costs'][number]['burdens'][number]['row']): string {
  const share = percent === 0 ? '' : `${formatPercentShortest(percent)} % of pay ${onPremium ? 'with' : 'without'} the premium`;
  const hourly = perHour === 0 ? '' : `${rateText(perHour)} an hour`;
  return [share, hourly].filter(Boolean).join(' and ');
}
