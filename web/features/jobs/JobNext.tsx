import { addressOf } from '../../ground/addressOf';
import { Link, useOutletContext } from 'react-router';
import { displayDate, displayPeriod } from '../../../core/calendar/displayDate';
import { describeRetention } from '../../../core/billing/describeRetention';
import { formatPercentShortest } from '../../../core/money/rate';
import { useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { MonthChart } from '../../ground/MonthChart';
import type { JobOutlet } from './JobPage';

/** What needs doing next on the job, its facts, and its course so far. */
export function JobNext() {
  const { job } = useOutletContext<JobOutlet>();
  const keep = useKeepMonth();
  const { show } = useCurrency();
  const facts: readonly (readonly [string, string])[] = [
    ['Awarded', displayDate(job.awardedOn)],
    ['Start', displayDate(job.startsOn)],
    ['Planned finish', displayDate(job.finishesOn)],
    ['Finished', displayDate(job.finishedOn)],
    ['Revenue recognition', job.revenueMethod],
    ['Retention', describeRetention(job.retentionRule)],
    ['Tax', `${formatPercentShortest(job.taxRate)} %`],
    ['Terms', `${job.termsDays ?? job.usualTermsDays} days${job.termsDays === null ? ', as usual with this client' : ''}`],
  ];
  return (
    <div className="grid gap-8" style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1.2fr)' }}>
      <div>
        <section aria-labelledby="next">
          <h2 id="next" className="mb-1">
            To do
          </h2>
          {job.nextSteps.length === 0 ? (
            <p className="note">Nothing outstanding on this job.</p>
          ) : (
            <ol className="m-0 list-none p-0">
              {job.nextSteps.map((step) => (
                <li key={step.text} className="border-b py-1" style={{ borderColor: 'var(--hair)' }}>
                  <Link to={keep(addressOf(step.to))}>{step.text}</Link>
                </li>
              ))}
            </ol>
          )}
        </section>
        <section aria-labelledby="facts" className="mt-5">
          <h2 id="facts" className="mb-1">
            Details
          </h2>
          <dl className="m-0 grid gap-x-4 gap-y-1" style={{ gridTemplateColumns: '110px 1fr' }}>
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
      </div>
      <section aria-labelledby="course">
        <h2 id="course" className="mb-1">
          Cost and billing, month by month
        </h2>
        {job.months.length === 0 ? (
          <p className="note">Nothing is posted to this job yet.</p>
        ) : (
          <>
            <MonthChart
              height={210}
              months={job.months}
              courses={[
                { key: 'budget', name: 'budget', colour: 'var(--bar-estimate)', planned: true },
                { key: 'billed', name: 'billed', colour: 'var(--bar-billed)' },
                { key: 'cost', name: 'cost', colour: 'var(--bar-cost)' },
              ]}
            />
            <div
              className="scroll mt-2"
              style={{ maxHeight: 190 }}
              tabIndex={0}
              role="region"
              aria-label="Cost and billing by month"
            >
              <table className="ledger">
                <thead>
                  <tr>
                    <th>To the end of</th>
                    <th className="num">Cost</th>
                    <th className="num">Billed</th>
                  </tr>
                </thead>
                <tbody>
                  {[...job.months].reverse().map((it) => (
                    <tr key={it.month}>
                      <td>{displayPeriod(it.month)}</td>
                      <td className="num">{show(it.cost)}</td>
                      <td className="num">{show(it.billed)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </>
        )}
      </section>
    </div>
  );
}
