import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { grouped } from '../../../core/lists/grouped';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { PeopleAtWork, WorkedRow } from '../../../wire/labour';
import { addressOf } from '../../ground/addressOf';
import { usePeopleAtWorkQuery } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

/** How much of people's time goes to jobs, where there is overtime, and who works where next. */
export function PeopleAtWorkPage() {
  const { asOf } = useAsOf();
  const people = usePeopleAtWorkQuery({ asOf });
  return (
    <div className="page">
      <PageHead title="People at work" />
      <Loaded of={people} what="the hours of people">
        {(data) =>
          data.rows.length === 0 && data.ahead.length === 0 ? (
            <Empty title="No hours of these weeks yet">
              <p className="note m-0">Hours are entered on week sheets, in Costs.</p>
            </Empty>
          ) : (
            <>
              <p className="note mt-0">
                Hours on jobs in the eight weeks to {displayDate(data.weeks.at(-1) ?? null)}, posted or not. Utilisation: hours on
                jobs of all hours.
              </p>
              <Utilisation people={data} />
              <div className="mt-6 grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)] gap-8">
                <Overtime rows={data.rows} />
                <Ahead ahead={data.ahead} />
              </div>
            </>
          )
        }
      </Loaded>
    </div>
  );
}

interface Person {
  employee: string;
  name: string;
  /** Hours on jobs by week. */
  weeks: number[];
  onJobs: number;
  overhead: number;
  overtime: number;
}

const sum = (rows: readonly WorkedRow[], value: (it: WorkedRow) => number = (it) => it.hours) =>
  rows.reduce((total, it) => total + value(it), 0);
const hours = (value: number) => (value === 0 ? '–' : displayQuantity(value));

function Utilisation({ people: { weeks, rows } }: { people: PeopleAtWork }) {
  const persons = useMemo(
    () =>
      [...grouped(rows, (it) => it.employee)].map(([employee, of]): Person => {
        const onJobs = of.filter((it) => it.job !== '');
        return {
          employee,
          name: of[0]?.name ?? employee,
          onJobs: sum(onJobs),
          overhead: sum(of) - sum(onJobs),
          weeks: weeks.map((_, i) => sum(onJobs.filter((it) => it.week === i))),
          overtime: sum(of, (it) => it.overtime),
        };
      }),
    [rows, weeks],
  );
  const columns = useMemo((): TableColumn<Person>[] => {
    const figure = (key: string, title: string, value: (it: Person) => number): TableColumn<Person> => ({
      key,
      title,
      value,
      number: hours,
      adds: true,
      cell: (it) => hours(value(it)),
    });
    const used = (it: Person) => ratio(it.onJobs, it.onJobs + it.overhead);
    return [
      { key: 'name', title: 'Name', value: (it) => it.name, cell: (it) => it.name },
      ...weeks.map((week, i) => figure(`week${i}`, displayDate(week).replace(/ \d{4}$/, ''), (it) => it.weeks[i] ?? 0)),
      figure('onJobs', 'On jobs', (it) => it.onJobs),
      figure('overhead', 'Without a job', (it) => it.overhead),
      { key: 'used', title: 'Utilisation %', value: used, number: displayPercent, cell: (it) => displayPercent(used(it)) },
      figure('overtime', 'Overtime posted', (it) => it.overtime),
    ];
  }, [weeks]);
  const total = (value: (it: Person) => number) => persons.reduce((all, it) => all + value(it), 0);
  const [onJobs, overhead] = [total((it) => it.onJobs), total((it) => it.overhead)];
  return (
    <Table
      label="Hours of people by week"
      columns={columns}
      rows={persons}
      rowKey={(it) => it.employee}
      dense
      foot={{
        label: `${persons.length} people`,
        cells: {
          ...Object.fromEntries(weeks.map((_, i) => [`week${i}`, hours(total((it) => it.weeks[i] ?? 0))])),
          onJobs: hours(onJobs),
          overhead: hours(overhead),
          used: displayPercent(ratio(onJobs, onJobs + overhead)),
          overtime: hours(total((it) => it.overtime)),
        },
      }}
    />
  );
}

/** Overtime and double hours by job, of what is posted. */
function Overtime({ rows }: { rows: readonly WorkedRow[] }) {
  const withMonth = useWithMonth();
  const jobs = [...grouped(rows, (it) => it.job)]
    .map(([job, of]) => ({ job, posted: sum(of) - sum(of, (it) => it.open), overtime: sum(of, (it) => it.overtime) }))
    .filter((it) => it.posted !== 0)
    .sort((a, b) => b.overtime - a.overtime);
  return (
    <section aria-label="Overtime by job">
      <h2 className="mb-1">Overtime by job</h2>
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th className="text-left">Job</th>
            <th className="text-right">Hours posted</th>
            <th className="text-right">Overtime</th>
            <th className="text-right">% of hours</th>
          </tr>
        </thead>
        <tbody>
          {jobs.map((it) => (
            <tr key={it.job}>
              <td>
                {it.job === '' ? (
                  'without a job'
                ) : (
                  <Link to={withMonth(`/jobs/${encodeURIComponent(it.job)}/hours`)}>{it.job}</Link>
                )}
              </td>
              <td className="figure">{hours(it.posted)}</td>
              <td className="figure">{hours(it.overtime)}</td>
              <td className="figure">{displayPercent(ratio(it.overtime, it.posted))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Who works where by sheets that are not posted yet. */
function Ahead({ ahead }: Pick<PeopleAtWork, 'ahead'>) {
  const withMonth = useWithMonth();
  return (
    <section aria-label="Who works where next">
      <h2 className="mb-1">Who works where next</h2>
      {ahead.length === 0 ? (
        <p className="note m-0">No open week sheet has days of this week or later.</p>
      ) : (
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th className="text-left">Name</th>
              <th className="text-left">Job</th>
              <th className="text-left">From</th>
              <th className="text-left">To</th>
              <th className="text-right">Hours</th>
              <th className="text-left">Sheet</th>
            </tr>
          </thead>
          <tbody>
            {ahead.map((it) => (
              <tr key={`${it.name} ${it.job} ${it.section}`}>
                <td>{it.name}</td>
                <td>{[it.job ? `${it.job} ${it.jobName}` : 'without a job', it.section].filter(Boolean).join(' · ')}</td>
                <td className="whitespace-nowrap">{displayDate(it.first)}</td>
                <td className="whitespace-nowrap">{displayDate(it.last)}</td>
                <td className="figure">{hours(it.hours)}</td>
                <td>
                  {it.sheets.split(',').map((sheet) => (
                    <Link key={sheet} className="mr-1" to={withMonth(addressOf({ place: 'week-sheet', document: sheet }))}>
                      {sheet}
                    </Link>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
