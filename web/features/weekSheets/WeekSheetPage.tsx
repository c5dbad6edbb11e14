import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { addDays } from '../../../core/calendar/plainDate';
import type { DayOfSheet } from '../../../wire/daySheets';
import type { TimeLists, WeekSheetView } from '../../../wire/weekSheets';
import {
  useDaySheetQuery,
  useDaysOfWeekSheetQuery,
  useHoursOfWeekQuery,
  useTimeListsQuery,
  useWeekRegisterQuery,
  useWeekSheetQuery,
} from '../../ground/api/api';
import { officeAddress } from '../../ground/officeAddress';
import { Approvals } from '../../ground/approvals/Approvals';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { SiteHoursDiffer } from '../../ground/daySheets/SiteHoursDiffer';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { May, useMay } from '../../ground/person';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { CorrectSheet } from './CorrectSheet';
import { DecideLines } from './DecideLines';
import { PersonTotals } from './PersonTotals';
import { SheetTable } from './lines/SheetTable';
import { splitHours } from './grid/splitHours';
import { doubledOn } from './grid/useSheet';
import { TIME_LIFE } from '../../../core/labour/timeLife';
import { movesFrom } from '../../../core/life/life';
import { enteredLine, Remarks } from './Remarks';
import { Doubled } from './Doubled';
import { weekWords } from '../../ground/weeks/weekWords';
import { useNames } from './employeeNames';
import { useKnownOfLines } from './lines/useKnownOfLines';
import { EditSheet } from './EditSheet';
import { EmployeeForm } from './NewEmployee';

/** A new sheet of the week a day lies in. */
export function NewWeekSheetPage() {
  const { lastDay } = useAsOf();
  const [params] = useSearchParams();
  const lists = useTimeListsQuery();
  const register = useWeekRegisterQuery({ on: params.get('on') ?? lastDay });
  return (
    <div className="page fits-phone">
      <Loaded of={lists} what="employees and jobs">
        {(given) => (
          <Loaded of={register} what="the week">
            {({ week }) =>
              given.employees.length === 0 ? (
                <Empty title="No employees yet">
                  <May do="set-up">
                    <EmployeeForm onDone={() => undefined} />
                  </May>
                  <p className="note m-0 basis-full">
                    Many at once are entered in Set-up, Labour; or import a book that has them.
                  </p>
                </Empty>
              ) : (
                <EditSheet key={week} lists={given} week={week} view={null} onDone={null} />
              )
            }
          </Loaded>
        )}
      </Loaded>
    </div>
  );
}

/** A week sheet: read, decided on, resubmitted, or corrected once it is posted. */
export function WeekSheetPage() {
  const { sheet = '' } = useParams();
  const [params] = useSearchParams();
  const on = params.get('on');
  const lists = useTimeListsQuery();
  const view = useWeekSheetQuery({ sheet, ...(on ? { on } : {}) });
  return (
    <div className="page fits-phone">
      <Loaded of={lists} what="employees and jobs">
        {(given) => (
          <Loaded of={view} what="the week sheet">
            {(data) => <OneSheet key={`${sheet} ${data.week}`} lists={given} view={data} />}
          </Loaded>
        )}
      </Loaded>
    </div>
  );
}

function OneSheet({ lists, view }: { lists: TimeLists; view: WeekSheetView }) {
  const [mode, setMode] = useState<'read' | 'edit' | 'correct'>('read');
  if (mode === 'edit') return <EditSheet lists={lists} week={view.week} view={view} onDone={() => setMode('read')} />;
  if (mode === 'correct') return <CorrectSheet lists={lists} view={view} onDone={() => setMode('read')} />;
  return (
    <ReadSheetView
      key={view.seen}
      lists={lists}
      view={view}
      onEdit={() => setMode('edit')}
      onCorrect={() => setMode('correct')}
    />
  );
}

interface ReadProps {
  lists: TimeLists;
  view: WeekSheetView;
  onEdit: () => void;
  onCorrect: () => void;
}

function ReadSheetView({ lists, view, onEdit, onCorrect }: ReadProps) {
  const may = useMay();
  const withMonth = useWithMonth();
  const { sheet, week, weeks, lines } = view;
  const nameOf = useNames(lists);
  const open = lines.filter((it) => it.state === 'submitted');
  const returned = lines.filter((it) => it.state === 'returned');
  const correctable = lines.some(
    (it) => movesFrom(TIME_LIFE, it.state).correct && it.reverses === null && it.reversedBy === null,
  );
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(open.map((it) => it.id)));
  const { data: there } = useHoursOfWeekQuery({ on: week });
  const waiting = useMemo(() => lines.filter((it) => movesFrom(TIME_LIFE, it.state).return), [lines]);
  const hours = useMemo(() => there?.hours ?? [], [there]);
  const elsewhere = hours.filter((it) => it.sheet !== sheet && it.dated >= week);
  const doubled = useMemo(() => doubledOn(waiting, hours, sheet), [waiting, hours, sheet]);
  const split = useMemo(
    () =>
      splitHours(
        lines,
        hours.filter((it) => it.sheet !== sheet),
        lists.rules,
        sheet,
      ),
    [lines, hours, sheet, lists.rules],
  );
  const decides = may('approve-time') && waiting.length > 0;
  const known = useKnownOfLines(week, waiting, decides);
  return (
    <>
      <PageHead title={`Week sheet ${sheet}`}>
        <div className="flex items-center gap-3">
          <HistoryLink subject={`week sheet ${sheet}`} />
          {(open.length > 0 || returned.length > 0) && (
            <button type="button" className={`button ${returned.length > 0 ? 'main' : ''}`} onClick={onEdit}>
              {returned.length > 0 ? 'Correct and resubmit' : 'Change hours'}
            </button>
          )}
          {correctable && may('correct-costs') && (
            <button type="button" className="button" onClick={onCorrect}>
              Correct posted hours
            </button>
          )}
        </div>
      </PageHead>
      <p className="mt-0">
        {weekWords(week)}
        {weeks.length > 1 && (
          <span className="note">
            {' '}
            Other weeks:{' '}
            {weeks
              .filter((it) => it !== week)
              .map((it) => (
                <Link key={it} className="mr-2" to={withMonth(`${addressOf({ place: 'week-sheet', document: sheet })}?on=${it}`)}>
                  {weekWords(it)}
                </Link>
              ))}
          </span>
        )}
        <FromSite sheet={sheet} week={week} />
        <Corrections word="Corrects" sheets={view.corrects} />
        <Corrections word="Corrected by" sheets={view.correctedBy} />
      </p>
      <SheetTable week={week} lines={lines} nameOf={nameOf} chosen={chosen} onChoose={decides ? setChosen : null} known={known} />
      <DiffersFromSite sheet={sheet} week={week} nameOf={nameOf} />
      <Doubled doubled={doubled} nameOf={nameOf} />
      <Remarks lines={waiting.map(enteredLine)} />
      <May do="read-jobs">
        <Approvals kind="approve-time" document={sheet} />
        <Approvals kind="post-time" document={sheet} />
      </May>
      {decides && <DecideLines view={view} chosen={chosen} onDone={() => setChosen(new Set())} />}
      <PersonTotals week={week} lines={lines} split={split} nameOf={nameOf} elsewhere={elsewhere} />
    </>
  );
}

/** The day sheets its hours came from in the week. */
function useDaysFromSite(sheet: string, week: string) {
  const { data = [] } = useDaysOfWeekSheetQuery({ sheet }, { refetchOnMountOrArgChange: true });
  return data.filter((it) => it.dated >= week && it.dated <= addDays(week, DAYS_OF_A_WEEK - 1));
}

/** Where the site says otherwise now, day by day and row by row, for whoever decides on the hours. */
function DiffersFromSite({ sheet, week, nameOf }: { sheet: string; week: string; nameOf: (employee: string) => string }) {
  const days = useDaysFromSite(sheet, week).filter((it) => it.differs);
  return days.map((it) => <DayDiffers key={`${it.job} ${it.dated} ${it.crew}`} day={it} nameOf={nameOf} />);
}

function DayDiffers({ day: { job, dated, crew }, nameOf }: { day: DayOfSheet; nameOf: (employee: string) => string }) {
  const { data } = useDaySheetQuery({ job, dated, crew });
  return data ? (
    <SiteHoursDiffer
      view={data}
      nameOf={nameOf}
      title={`The site says otherwise: ${displayDate(dated)}, job ${job}, crew of ${crew}`}
    />
  ) : null;
}

/** Leads to the day sheets its hours came from; where one says otherwise now, it says so. */
function FromSite({ sheet, week }: { sheet: string; week: string }) {
  const withMonth = useWithMonth();
  const days = useDaysFromSite(sheet, week);
  if (days.length === 0) return null;
  return (
    <span className="ml-4">
      From day sheets{' '}
      {days.map((it) => (
        <span key={`${it.job} ${it.dated} ${it.crew}`} className="mr-2">
          <Link to={withMonth(officeAddress(it))}>{displayDate(it.dated).replace(/ \d{4}$/, '')}</Link>
          {it.differs && <b className="text-[var(--over)]"> hours differ</b>}
        </span>
      ))}
    </span>
  );
}
const DAYS_OF_A_WEEK = 7;

function Corrections({ word, sheets }: { word: string; sheets: readonly string[] }) {
  const withMonth = useWithMonth();
  if (sheets.length === 0) return null;
  return (
    <span className="ml-4">
      {word}{' '}
      {sheets.map((it) => (
        <Link key={it} className="mr-1" to={withMonth(addressOf({ place: 'week-sheet', document: it }))}>
          sheet {it}
        </Link>
      ))}
    </span>
  );
}
