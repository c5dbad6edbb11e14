import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { plural } from '../../../core/names/plural';
import { displayQuantity } from '../../../core/money/display';
import { SHEET_STATES } from '../../../core/labour/timeLife';
import { type SheetRow, type WeekRegister } from '../../../wire/weekSheets';
import { useRemindMissingMutation, useWeekCostQuery, useWeekRegisterQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { displayMoment } from '../../kit/displayMoment';
import { toast } from '../../kit/toast';
import { WeekChooser } from '../../ground/weeks/WeekChooser';
import { PHONE, useNarrowWindow } from '../../kit/useNarrowWindow';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { STATE_LOOK } from './lines/sheetRows';

/** The sheets of a week, who has not handed in, and what earlier weeks still have open. */
export function WeekRegisterPage() {
  const { lastDay } = useAsOf();
  const [params] = useSearchParams();
  const register = useWeekRegisterQuery({ on: params.get('on') ?? lastDay }, { refetchOnMountOrArgChange: true });
  const withMonth = useWithMonth();
  const week = register.data?.week;
  return (
    <div className="page fits-phone">
      <PageHead title="Week sheets">
        <div className="flex flex-wrap items-center gap-3">
          {week && (
            <Link className="button" to={withMonth(`/costs/time/person?on=${week}`)}>
              By person
            </Link>
          )}
          <May do="post-costs">
            <Link className="button" to={withMonth('/costs/time/post')}>
              Post time
            </Link>
          </May>
          {week && (
            <Link className="button main" to={withMonth(`/costs/time/new?on=${week}`)}>
              New week sheet
            </Link>
          )}
        </div>
      </PageHead>
      {week && <WeekChooser week={week} />}
      {week && (
        <May do="read-books">
          <CostOfWeek week={week} />
        </May>
      )}
      <Loaded of={register} what="the week">
        {(data) => <Register register={data} />}
      </Loaded>
    </div>
  );
}

/** What the labour of the week costs, known before it is approved. */
function CostOfWeek({ week }: { week: string }) {
  const { data } = useWeekCostQuery({ on: week }, { refetchOnMountOrArgChange: true });
  const { exact, code } = useCurrency();
  if (!data || (data.posted === 0 && data.toCome === 0 && data.unpriced === 0)) return null;
  return (
    <p className="mt-0 mb-3 flex flex-wrap gap-x-6" role="status" aria-label="Labour of the week">
      <span>
        <span className="note">Labour of the week, {code}</span> <b className="figure">{exact(data.posted + data.toCome)}</b>
      </span>
      <span>
        <span className="note">posted</span> <b className="figure">{exact(data.posted)}</b>
      </span>
      <span>
        <span className="note">waiting for approval or posting</span> <b className="figure">{exact(data.toCome)}</b>
      </span>
      {data.unpriced > 0 && (
        <span className="text-[var(--loss)]">{plural(data.unpriced, 'line')} without a rate not counted</span>
      )}
    </p>
  );
}

function Register({ register: { sheets, missing, earlier, week } }: { register: WeekRegister }) {
  const withMonth = useWithMonth();
  return (
    <>
      {sheets.length === 0 ? (
        <Empty title="No hours of this week yet">
          <Link className="button" to={withMonth(`/costs/time/new?on=${week}`)}>
            Enter a week sheet
          </Link>
        </Empty>
      ) : (
        <Sheets label="Sheets of the week" sheets={sheets} />
      )}
      <NotHandedIn week={week} missing={missing} />
      {earlier.length > 0 && (
        <section aria-label="Earlier weeks" className="mt-5">
          <h2 className="mb-1">Earlier weeks, not posted yet</h2>
          <Sheets label="Sheets of earlier weeks" sheets={earlier} withWeek />
        </section>
      )}
    </>
  );
}

/** Who has no hours in the week; whoever hands them in is reminded at once. */
function NotHandedIn({ week, missing }: Pick<WeekRegister, 'week' | 'missing'>) {
  const withMonth = useWithMonth();
  const [remind, { isLoading }] = useRemindMissingMutation();
  const { refused, attempt } = useAttempt();
  const people = new Set(missing.flatMap((it) => it.by ?? []));
  const remindAll = () =>
    attempt(async () => {
      const { reminded, nobody } = await remind({ body: { on: week } }).unwrap();
      toast(
        `Reminded: ${reminded.join(', ')}${nobody.length > 0 ? `. Nobody who signs in hands in for ${nobody.join(', ')}` : ''}`,
      );
    });
  return (
    <section aria-label="Not handed in" className="mt-5">
      <div className="mb-1 flex flex-wrap items-center gap-3">
        <h2>Not handed in</h2>
        {missing.length > 0 && (
          <May do="approve-time">
            {people.size > 0 ? (
              <button type="button" className="button" disabled={isLoading} onClick={() => void remindAll()}>
                Remind {[...people].sort().join(', ')}
              </button>
            ) : (
              <span className="note">Whoever has entered their hours once can be reminded here.</span>
            )}
          </May>
        )}
      </div>
      {refused && <Refused message={refused.message} />}
      {missing.length === 0 ? (
        <p className="m-0">Everybody who is employed has hours in this week.</p>
      ) : (
        <ul className="m-0 list-none p-0">
          {missing.map((it) => (
            <li key={it.employee}>
              <Link to={withMonth(`/costs/time/person?employee=${encodeURIComponent(it.employee)}&on=${week}`)}>{it.name}</Link>
              {it.reminded && (
                <span className="note">
                  {' '}
                  {it.reminded.user} reminded {displayMoment(it.reminded.at)}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface SheetsProps {
  label: string;
  sheets: readonly SheetRow[];
  withWeek?: boolean;
}

function Sheets(props: SheetsProps) {
  return useNarrowWindow(PHONE) ? <SheetList {...props} /> : <SheetsTable {...props} />;
}

const toSheet = ({ sheet, week }: SheetRow) => `${addressOf({ place: 'week-sheet', document: sheet })}?on=${week}`;

/** The sheets on a phone: one below the other. */
function SheetList({ label, sheets, withWeek = false }: SheetsProps) {
  const withMonth = useWithMonth();
  return (
    <ul aria-label={label} className="m-0 list-none p-0">
      {sheets.map((it) => (
        <li key={`${it.sheet} ${it.week}`} className="hair-below">
          <Link className="block py-2 no-underline" to={withMonth(toSheet(it))}>
            <b>Sheet {it.sheet}</b>
            {withWeek && <span className="note"> week of {displayDate(it.week)}</span>}
            <span className="note block">{it.employees.join(', ')}</span>
            {SHEET_STATES.filter((state) => it.hours[state] !== 0).map((state) => (
              <span key={state} className="mr-4" style={{ color: STATE_LOOK[state].colour }}>
                {displayQuantity(it.hours[state])} h {STATE_LOOK[state].word}
              </span>
            ))}
          </Link>
        </li>
      ))}
    </ul>
  );
}

function SheetsTable({ label, sheets, withWeek = false }: SheetsProps) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    (): TableColumn<SheetRow>[] => [
      kinds.link<SheetRow>('sheet', 'Sheet', (it) => it.sheet, toSheet),
      ...(withWeek ? [kinds.text<SheetRow>('week', 'Week of', (it) => displayDate(it.week))] : []),
      kinds.text<SheetRow>('employees', 'People', (it) => it.employees.join(', ')),
      ...SHEET_STATES.map((state): TableColumn<SheetRow> => ({
        key: state,
        title: `Hours ${STATE_LOOK[state].word}`,
        value: (it: SheetRow) => it.hours[state],
        adds: true,
        number: (value) => (value === 0 ? '–' : displayQuantity(value)),
        cell: (it) => {
          const value = it.hours[state];
          return value === 0 ? '–' : <span style={{ color: STATE_LOOK[state].colour }}>{displayQuantity(value)}</span>;
        },
      })),
    ],
    [kinds, withWeek],
  );
  const sum = (state: (typeof SHEET_STATES)[number]) =>
    displayQuantity(sheets.reduce((total, it) => total + it.hours[state], 0)) || '–';
  return (
    <Table
      label={label}
      columns={columns}
      rows={sheets}
      rowKey={(it) => `${it.sheet} ${it.week}`}
      foot={{ label: 'Total', cells: Object.fromEntries(SHEET_STATES.map((it) => [it, sum(it)])) }}
    />
  );
}
