import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { addDays } from '../../../core/calendar/plainDate';
import { weekBy } from '../../../core/labour/overtime';
import { displayQuantity } from '../../../core/money/display';
import type { DayHours, TimeLists } from '../../../wire/weekSheets';
import { useAddSheetMutation, useHoursOfWeekQuery, useTimeListsQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { Loaded } from '../../ground/Loaded';
import { WeekChooser } from '../../ground/weeks/WeekChooser';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { Field } from '../../kit/Field';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused } from '../../kit/States';
import { toast } from '../../kit/toast';
import { words } from '../../kit/typed/codecs';
import { DAYS, readSheet, sheetCodecs } from './grid/readSheet';
import { dayTitle } from './grid/sheetColumns';

/** The hours of one person in any week, and more of them: the own week of whoever is employed. Made to be used on a phone too. */
export function PersonWeekPage() {
  const lists = useTimeListsQuery();
  return (
    <div className="page narrow">
      <Loaded of={lists} what="employees and jobs">
        {(data) => <PersonWeek lists={data} />}
      </Loaded>
    </div>
  );
}

function PersonWeek({ lists }: { lists: TimeLists }) {
  const { lastDay } = useAsOf();
  const [params, setParams] = useSearchParams();
  const employee = params.get('employee') ?? lists.me ?? lists.employees[0]?.employee ?? '';
  const person = lists.employees.find((it) => it.employee === employee);
  const week = weekBy(lists.rules, params.get('on') ?? lastDay);
  if (!person)
    return (
      <Empty title="No employees yet">
        <p className="note m-0">They are entered in Set-up, Labour, or on the first week sheet.</p>
      </Empty>
    );
  const choose = (code: string) =>
    setParams((before) => new URLSearchParams([...before].filter(([key]) => key !== 'employee').concat([['employee', code]])), {
      replace: true,
    });
  return (
    <>
      <PageHead title={employee === lists.me ? 'My week' : `Week of ${person.name}`}>
        <Choice
          aria-label="Employee"
          className="box w-[200px]"
          value={employee}
          options={lists.employees.map((it): Option => [it.employee, `${it.employee} ${it.name}`])}
          onChange={choose}
        />
      </PageHead>
      <WeekChooser week={week} />
      <Hours week={week} employee={employee} />
      <AddHours key={`${employee} ${week}`} week={week} employee={employee} lists={lists} />
    </>
  );
}

/** Day by day, wherever the hours stand. */
function Hours({ week, employee }: { week: string; employee: string }) {
  const found = useHoursOfWeekQuery({ on: week }, { refetchOnMountOrArgChange: true });
  return (
    <Loaded of={found} what="the hours">
      {({ hours }) => {
        const own = hours.filter((it) => it.employee === employee && it.dated >= week);
        const sum = (of: readonly DayHours[]) => displayQuantity(of.reduce((total, it) => total + it.hours, 0));
        return (
          <table className="ledger static-foot">
            <tbody>
              {DAYS.map((_, i) => {
                const of = own.filter((it) => it.dated === addDays(week, i));
                return (
                  <tr key={i}>
                    <td className="align-top whitespace-nowrap">{dayTitle(week, i)}</td>
                    <td className="align-top">
                      {of.map((it, k) => (
                        <Entry key={k} it={it} />
                      ))}
                    </td>
                    <td className="figure align-top">{of.length > 0 ? <b>{sum(of)}</b> : '–'}</td>
                  </tr>
                );
              })}
            </tbody>
            <tfoot>
              <tr>
                <td colSpan={2}>Hours of the week</td>
                <td className="figure">{sum(own)}</td>
              </tr>
            </tfoot>
          </table>
        );
      }}
    </Loaded>
  );
}

function Entry({ it }: { it: DayHours }) {
  const withMonth = useWithMonth();
  const task = it.job === null ? 'another job' : [it.job || 'overhead', it.section, it.costCode].filter(Boolean).join(' · ');
  return (
    <div>
      {task} <b className="figure">{displayQuantity(it.hours)}</b>{' '}
      <span className="note">
        {it.pay && it.pay !== 'regular' ? `${it.pay}, ` : ''}
        {it.posted ? 'posted' : 'waiting'},{' '}
        <Link to={withMonth(`${addressOf({ place: 'week-sheet', document: it.sheet })}?on=${it.dated}`)}>sheet {it.sheet}</Link>
      </span>
    </div>
  );
}

interface AddProps {
  week: string;
  employee: string;
  lists: TimeLists;
}

/** A task and its hours by day, submitted as a week sheet of its own. */
function AddHours({ week, employee, lists }: AddProps) {
  const codecs = useMemo(() => sheetCodecs(lists), [lists]);
  const fields = useMemo(() => Object.fromEntries(['job', 'section', 'costCode', ...DAYS].map((key) => [key, words()])), []);
  const empty = Object.fromEntries(Object.keys(fields).map((key) => [key, '']));
  const form = useCodecForm(fields, empty);
  const [add] = useAddSheetMutation();
  const job = lists.jobs.find((it) => it.number === form.text.job);
  const onSubmit = form.submit(async (typed) => {
    const row = { ...(typed as Record<string, string>), employee, workKind: job?.workKind ?? '' };
    const { lines, faults } = readSheet([row], codecs, week);
    if (faults.size > 0)
      return form.refuse({
        message: '',
        faults: [...faults].map(([at, message]) => ({ field: at.replace('0.', ''), message })),
      });
    const { sheet } = await add({ body: { week, lines } }).unwrap();
    toast(`Week sheet ${sheet} submitted`);
    form.restart(empty);
  }, faultOf);
  const choices = (rows: readonly { code: string; name: string }[], none: string): Option[] => [
    ['', none],
    ...rows.map((it): Option => [it.code, `${it.code} ${it.name}`]),
  ];
  return (
    <form aria-label="Add hours" className="mt-6" onSubmit={onSubmit} noValidate>
      <h2 className="mb-2">Add hours</h2>
      <div className="grid grid-cols-3 gap-3 max-[640px]:grid-cols-1">
        {form.choice(
          'job',
          'Job',
          choices(
            lists.jobs.map((it) => ({ code: it.number, name: it.name })),
            'none: overhead',
          ),
        )}
        {job && job.sections.length > 0 ? (
          form.choice(
            'section',
            'Section',
            choices(
              job.sections.map((it) => ({ code: it, name: '' })),
              'none',
            ),
          )
        ) : (
          <Field label="Section">
            <input disabled value="" />
          </Field>
        )}
        {form.choice(
          'costCode',
          'Cost code',
          choices(
            lists.costCodes.map((it) => ({ code: it.code, name: it.description })),
            'none',
          ),
        )}
      </div>
      <div className="mt-3 grid grid-cols-7 gap-3 max-[640px]:grid-cols-2">
        {DAYS.map((day, i) => (
          <div key={day}>{form.input(day, dayTitle(week, i), { inputMode: 'decimal', placeholder: '8' })}</div>
        ))}
      </div>
      <p className="note mb-0 mt-2 text-[12.5px]">
        Hours such as 8, 7.5 or 8:30; or start – finish – break, such as 7:00-16:30-0:30.
      </p>
      <button className="button main mt-3" disabled={form.busy || !DAYS.some((day) => (form.text[day] ?? '').trim() !== '')}>
        Submit hours
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
