import { PRICING_WORDS } from '../../../core/charging/pricing';
import { useCurrency } from '../../ground/company';
import { addressOf } from '../../ground/addressOf';
import { useMemo } from 'react';
import { Link, useOutletContext } from 'react-router';
import { displayDate, displayPeriod } from '../../../core/calendar/displayDate';
import { USUAL_TERMS_DAYS } from '../../../core/billing/invoice';
import { describeRetention } from '../../../core/billing/describeRetention';
import { formatPercentShortest } from '../../../core/money/rate';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { Table } from '../../kit/table/Table';
import { MonthChart } from '../../ground/MonthChart';
import type { JobOutlet } from './JobPage';

/** What needs doing next on the job, its facts, and its course so far. */
export function JobNext() {
  const { job } = useOutletContext<JobOutlet>();
  return (
    <div className="halves">
      <div>
        <ToDo job={job} />
        <Details job={job} />
      </div>
      <section aria-labelledby="course">
        <h2 id="course" className="mb-1">
          Cost and billing, month by month
        </h2>
        {job.months.length === 0 ? <p className="note">Nothing is posted to this job yet.</p> : <Course months={job.months} />}
      </section>
    </div>
  );
}

type Shown = { job: JobOutlet['job'] };

function ToDo({ job }: Shown) {
  const withMonth = useWithMonth();
  return (
    <section aria-labelledby="next">
      <h2 id="next" className="mb-1">
        To do
      </h2>
      {job.nextSteps.length === 0 ? (
        <p className="note">Nothing to do on this job.</p>
      ) : (
        <ol className="m-0 list-none p-0">
          {job.nextSteps.map((step) => (
            <li key={step.text} className="hair-below py-1">
              <Link to={withMonth(addressOf(step.to))}>{step.text}</Link>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

/** The job's terms of payment, and whose they are where it has none of its own. */
function termsOf({ termsDays, clientTermsDays }: Shown['job']): string {
  if (termsDays !== null) return `${termsDays} days`;
  return clientTermsDays === null ? `${USUAL_TERMS_DAYS} days, none agreed` : `${clientTermsDays} days (client default)`;
}

function Details({ job }: Shown) {
  const { exact } = useCurrency();
  const facts: readonly (readonly [string, string])[] = [
    ['Awarded', displayDate(job.awardedOn)],
    ['Start', displayDate(job.startsOn)],
    ['Planned finish', displayDate(job.finishesOn)],
    ['Finished', displayDate(job.finishedOn)],
    ...Object.entries({ 'Kind of job': job.kind, Department: job.department }).filter(([, code]) => code !== ''),
    ...(job.pricing === 'charged'
      ? [['Priced by', `${PRICING_WORDS.charged}${job.ceiling === null ? '' : `, at most ${exact(job.ceiling)}`}`] as const]
      : [['Revenue recognition', job.revenueMethod] as const, ['Retention', describeRetention(job.retentionRule)] as const]),
    ['Tax', `${formatPercentShortest(job.taxRate)} %`],
    ['Terms', termsOf(job)],
  ];
  return (
    <section aria-labelledby="facts" className="mt-5">
      <h2 id="facts" className="mb-1">
        Details
      </h2>
      <dl className="m-0 grid grid-cols-[110px_1fr] gap-x-4 gap-y-1">
        {facts
          .filter(([, value]) => value)
          .map(([label, value]) => (
            <div key={label} className="contents">
              <dt className="note">{label}</dt>
              <dd className="m-0">{value}</dd>
            </div>
          ))}
      </dl>
    </section>
  );
}

type Month = JobOutlet['job']['months'][number];

/** The course of the job, as a chart and in figures, the newest month first. */
function Course({ months }: { months: readonly Month[] }) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.text<Month>('month', 'To the end of', (it) => it.month, { cell: (it) => displayPeriod(it.month) }),
      kinds.amount<Month>('cost', 'Cost', (it) => it.cost),
      kinds.amount<Month>('billed', 'Billed', (it) => it.billed),
    ],
    [kinds],
  );
  return (
    <>
      <MonthChart
        height={210}
        months={months}
        courses={[
          { key: 'budget', name: 'budget', colour: 'var(--bar-estimate)', planned: true },
          { key: 'billed', name: 'billed', colour: 'var(--bar-billed)' },
          { key: 'cost', name: 'cost', colour: 'var(--bar-cost)' },
        ]}
      />
      <div className="mt-2">
        <Table
          label="Cost and billing by month"
          rows={[...months].reverse()}
          rowKey={(it) => it.month}
          columns={columns}
          height={190}
        />
      </div>
    </>
  );
}
