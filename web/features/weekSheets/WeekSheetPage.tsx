import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { addDays } from '../../../core/calendar/plainDate';
import { displayQuantity } from '../../../core/money/display';
import type { TimeLists, WeekSheetView } from '../../../wire/weekSheets';
import {
  useAddSheetMutation,
  useHoursOfWeekQuery,
  useSaveSheetMutation,
  useTimeListsQuery,
  useWeekRegisterQuery,
  useWeekSheetQuery,
} from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused } from '../../kit/States';
import { CorrectSheet } from './CorrectSheet';
import { DecideLines } from './DecideLines';
import { PersonTotals } from './PersonTotals';
import { rowsOfLines, sheetCodecs, typedRow, type ReadSheet } from './readSheet';
import { SheetGrid } from './SheetGrid';
import { SheetTable } from './SheetTable';
import { splitHours } from './splitHours';
import { useSheet } from './useSheet';

const LAST = 6;
export const weekWords = (week: string) => `${displayDate(week)} to ${displayDate(addDays(week, LAST))}`;

/** A new sheet of the week a day lies in. */
export function NewWeekSheetPage() {
  const { lastDay } = useAsOf();
  const [params] = useSearchParams();
  const lists = useTimeListsQuery();
  const register = useWeekRegisterQuery({ on: params.get('on') ?? lastDay });
  return (
    <div className="page">
      <Loaded of={lists} what="employees and jobs">
        {(given) => (
          <Loaded of={register} what="the week">
            {({ week }) =>
              given.employees.length === 0 ? (
                <Empty title="No employees yet">
                  <p className="note m-0">Enter them in Set-up, Labour, with their pay rates; or import a book that has them.</p>
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

/** A week sheet: read, decided on, put right, or corrected once it is posted. */
export function WeekSheetPage() {
  const { sheet = '' } = useParams();
  const [params] = useSearchParams();
  const on = params.get('on');
  const lists = useTimeListsQuery();
  const view = useWeekSheetQuery({ sheet, ...(on ? { on } : {}) });
  return (
    <div className="page">
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
  if (mode === 'edit')
    return <EditSheet key={view.seen} lists={lists} week={view.week} view={view} onDone={() => setMode('read')} />;
  if (mode === 'correct') return <CorrectSheet lists={lists} view={view} onDone={() => setMode('read')} />;
  return <ReadSheetView lists={lists} view={view} onEdit={() => setMode('edit')} onCorrect={() => setMode('correct')} />;
}

interface ReadProps {
  lists: TimeLists;
  view: WeekSheetView;
  onEdit: () => void;
  onCorrect: () => void;
}

function ReadSheetView({ lists, view, onEdit, onCorrect }: ReadProps) {
  const may = useMay();
  const keep = useKeepMonth();
  const { sheet, week, weeks, lines } = view;
  const nameOf = useNames(lists);
  const open = lines.filter((it) => it.state === 'submitted');
  const returned = lines.filter((it) => it.state === 'returned');
  const correctable = lines.some((it) => it.state === 'posted' && it.reverses === null && it.reversedBy === null);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(open.map((it) => it.id)));
  const { data: there } = useHoursOfWeekQuery({ on: week });
  const hours = useMemo(() => there?.hours ?? [], [there]);
  const elsewhere = hours.filter((it) => it.sheet !== sheet);
  const split = useMemo(
    () =>
      splitHours(
        lines,
        hours.filter((it) => it.sheet !== sheet),
        lists.rules,
      ),
    [lines, hours, sheet, lists.rules],
  );
  const decides = may('approve-time') && lines.some((it) => it.state !== 'posted');
  return (
    <>
      <PageHead title={`Week sheet ${sheet}`}>
        <div className="flex items-center gap-3">
          <HistoryLink subject={`week sheet ${sheet}`} />
          {(open.length > 0 || returned.length > 0) && (
            <button type="button" className={`button ${returned.length > 0 ? 'main' : ''}`} onClick={onEdit}>
              {returned.length > 0 ? 'Put right' : 'Change hours'}
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
                <Link key={it} className="mr-2" to={keep(`${addressOf({ place: 'week-sheet', document: sheet })}?on=${it}`)}>
                  {weekWords(it)}
                </Link>
              ))}
          </span>
        )}
        <Corrections word="Corrects" sheets={view.corrects} />
        <Corrections word="Corrected by" sheets={view.correctedBy} />
      </p>
      <SheetTable week={week} lines={lines} nameOf={nameOf} chosen={chosen} onChoose={decides ? setChosen : null} />
      {decides && <DecideLines view={view} chosen={chosen} onDone={() => setChosen(new Set())} />}
      <PersonTotals week={week} lines={lines} split={split} nameOf={nameOf} elsewhere={elsewhere} />
    </>
  );
}

function Corrections({ word, sheets }: { word: string; sheets: readonly string[] }) {
  const keep = useKeepMonth();
  if (sheets.length === 0) return null;
  return (
    <span className="ml-4">
      {word}{' '}
      {sheets.map((it) => (
        <Link key={it} className="mr-1" to={keep(addressOf({ place: 'week-sheet', document: it }))}>
          sheet {it}
        </Link>
      ))}
    </span>
  );
}

function useNames(lists: TimeLists) {
  return useMemo(() => {
    const names = new Map(lists.employees.map((it) => [it.employee, it.name]));
    return (employee: string) => names.get(employee) ?? employee;
  }, [lists]);
}

/** Faults of the cells, and those the server found, at the rows and days they are of. */
export function placedFaults(
  read: ReadSheet,
  asked: boolean,
  refused: { faults: readonly { field: string; message: string }[] } | null,
  typedAt: (row: number, column: string) => string,
): Map<string, string> {
  const shown = new Map(
    [...read.faults].filter(([at]) => {
      const [row, column = ''] = at.split('.');
      return asked || typedAt(Number(row), column) !== '';
    }),
  );
  for (const { field, message } of refused?.faults ?? []) {
    const [, line, column] = field.split('.');
    const place = line === undefined ? undefined : read.places[Number(line)];
    if (place && column) shown.set(`${place.row}.${column === 'hours' || column === 'dated' ? place.day : column}`, message);
  }
  return shown;
}

interface EditProps {
  lists: TimeLists;
  week: string;
  /** Null: a new sheet. */
  view: WeekSheetView | null;
  onDone: (() => void) | null;
}

/** The lines of a sheet that are not approved yet, to be typed; what is approved or posted stands beneath. */
function EditSheet({ lists, week, view, onDone }: EditProps) {
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const nameOf = useNames(lists);
  const start = useMemo(() => {
    const codecs = sheetCodecs(lists);
    const open = (view?.lines ?? []).filter((it) => it.state === 'submitted' || it.state === 'returned');
    return rowsOfLines(open).map((of) => typedRow(of, codecs, week));
  }, [lists, view, week]);
  const sheet = useSheet({
    lists,
    week,
    kept: view ? view.sheet : `new ${week}`,
    seen: view?.seen ?? '',
    start,
    sheet: view?.sheet ?? '',
  });
  const { read } = sheet;
  const { refused, setRefused, attempt } = useAttempt();
  const [asked, setAsked] = useState(false);
  const [add, adding] = useAddSheetMutation();
  const [save, saving] = useSaveSheetMutation();
  const faults = placedFaults(read, asked, refused, (row, column) => (sheet.rows[row]?.[column] ?? '').trim());
  const settled = (view?.lines ?? []).filter((it) => it.state === 'approved' || it.state === 'posted');
  const { data: there } = useHoursOfWeekQuery({ on: week });
  const elsewhere = useMemo(() => (there?.hours ?? []).filter((it) => it.sheet !== view?.sheet), [there, view]);
  const split = useMemo(
    () =>
      splitHours(
        read.lines,
        (there?.hours ?? []).filter((it) => it.sheet !== view?.sheet),
        lists.rules,
      ),
    [read.lines, there, view, lists.rules],
  );
  const total = read.lines.reduce((sum, it) => sum + it.hours, 0);
  const count =
    total === 0 ? '' : `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}, ${displayQuantity(total)} h`;
  const submit = async () => {
    setAsked(true);
    if (read.faults.size > 0) {
      const wrong = `${read.faults.size} ${read.faults.size === 1 ? 'cell needs' : 'cells need'} attention; see the notes in them. Nothing is sent until they are right.`;
      return setRefused({ message: wrong, faults: [] });
    }
    await attempt(async () => {
      const { lines } = read;
      if (view) {
        await save({ sheet: view.sheet, body: { seen: view.seen, week, lines } }).unwrap();
        toast(`Week sheet ${view.sheet} submitted: ${count}`);
        sheet.forget();
        return lines.length === 0 && settled.length === 0 ? void navigate(keep(`/costs/time?on=${week}`)) : onDone?.();
      }
      const { sheet: name } = await add({ body: { week, lines } }).unwrap();
      toast(`Week sheet ${name} submitted: ${count}`);
      sheet.forget();
      void navigate(keep(addressOf({ place: 'week-sheet', document: name })));
    });
  };
  return (
    <>
      <PageHead title={view ? `Week sheet ${view.sheet}` : 'New week sheet'}>
        <span>{weekWords(week)}</span>
      </PageHead>
      <SheetGrid
        sheet={sheet}
        lists={lists}
        week={week}
        faults={faults}
        onTyped={() => setRefused(null)}
        height="calc(100vh - 420px)"
      />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className="button main"
          disabled={
            sheet.settling ||
            adding.isLoading ||
            saving.isLoading ||
            (view ? !sheet.changed && start.every((it) => !it.returned) : read.lines.length === 0)
          }
          onClick={() => void submit()}
        >
          Submit {count}
        </button>
        {onDone && (
          <button type="button" className="button bare" onClick={onDone}>
            Back, without sending
          </button>
        )}
        {sheet.changed && <span className="note">What is typed stays in this browser until it is sent.</span>}
      </div>
      {refused && <Refused message={refused.message} />}
      <PersonTotals week={week} lines={read.lines} split={split} nameOf={nameOf} elsewhere={elsewhere} />
      {settled.length > 0 && (
        <>
          <h2 className="mb-1 mt-4">Approved or posted already</h2>
          <SheetTable week={week} lines={settled} nameOf={nameOf} chosen={new Set()} onChoose={null} />
        </>
      )}
    </>
  );
}
