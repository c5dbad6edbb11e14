import { TIME_LIFE } from '../../../core/labour/timeLife';
import { movesFrom } from '../../../core/life/life';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../kit/toast';
import { firstDay } from '../../../core/calendar/plainDate';
import { grouped } from '../../../core/lists/grouped';
import type { TimeLineInput, TimeLists, TimePreview, WeekSheetView } from '../../../wire/weekSheets';
import { useCorrectTimeMutation, usePreviewTimeCorrectionMutation } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useAttempt } from '../../ground/useAttempt';
import { Field } from '../../kit/Field';
import { PageHead } from '../../kit/PageHead';
import { Refused } from '../../kit/States';
import { LateOn, useLateOn } from './LateOn';
import { keyedRows, sheetCodecs } from './grid/readSheet';
import { SheetGrid } from './grid/SheetGrid';
import { TimePreviewShown } from './TimePreview';
import { useSheet } from './grid/useSheet';
import { placedFaults } from './grid/placedFaults';
import { weekWords } from '../../ground/weeks/weekWords';

interface Props {
  lists: TimeLists;
  view: WeekSheetView;
  onDone: () => void;
}

/** A posted line as it was entered, cut parts together: what is typed to put it right. */
function asEntered(view: WeekSheetView): TimeLineInput[] {
  const posted = view.lines.filter(
    (it) => movesFrom(TIME_LIFE, it.state).correct && it.reverses === null && it.reversedBy === null,
  );
  return [...grouped(posted, (it) => it.line).values()].flatMap((of) => {
    const [first] = of;
    if (!first) return [];
    const { employee, dated, job, section, costCode, workKind, department, wageClass, units, description, clock, charge } = first;
    const hours = of.reduce((sum, it) => sum + it.hours, 0);
    // A class that was given stays given.
    const pay = first.split ? null : first.pay;
    return [
      { employee, dated, job, section, costCode, workKind, department, wageClass, pay, hours, units, description, clock, charge },
    ];
  });
}

/** Corrects posted hours: what is typed stands in their place, and a sheet of its own reverses them and has the right ones. */
export function CorrectSheet({ lists, view, onDone }: Props) {
  const { sheet: name, week, seen } = view;
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const { asOf, month } = useAsOf();
  const was = useMemo(() => asEntered(view), [view]);
  const start = useMemo(() => {
    const codecs = sheetCodecs(lists);
    return keyedRows(was, codecs, week);
  }, [lists, was, week]);
  const sheet = useSheet({ lists, week, kept: `correct ${name} ${week}`, seen, start, sheet: name, corrects: true });
  const { read } = sheet;
  const [reason, setReason] = useState('');
  const late = useLateOn(was.some((it) => it.dated < firstDay(month)) ? firstDay(month) : null);
  const [asked, setAsked] = useState(false);
  const [preview, setPreview] = useState<TimePreview | null>(null);
  const { refused, setRefused, attempt } = useAttempt();
  const [look, looking] = usePreviewTimeCorrectionMutation();
  const [post, posting] = useCorrectTimeMutation();
  const employees = changedPeople(was, read.lines);
  // Lines of people nobody changed are not sent, those of people who were not on the sheet are: hours may have been of somebody else.
  const before = new Set(was.map((it) => it.employee));
  const sent = read.lines.flatMap((it, i) => (employees.includes(it.employee) || !before.has(it.employee) ? [i] : []));
  const lines = sent.flatMap((i) => read.lines[i] ?? []);
  const body = { week, employees, lines, reason, lateOn: late.on };
  const placed = { ...read, places: sent.flatMap((i) => read.places[i] ?? []) };
  const faults = placedFaults(read, asked, null, (row, column) => (sheet.rows[row]?.[column] ?? '').trim());
  for (const [at, message] of placedFaults({ ...placed, faults: new Map() }, true, refused, () => '')) faults.set(at, message);
  const changed = () => {
    setPreview(null);
    setRefused(null);
  };
  const showPreview = async () => {
    setAsked(true);
    if (read.faults.size > 0 || reason.trim() === '' || late.fault) return;
    await attempt(async () => setPreview(await look({ sheet: name, body: { ...body, asOf } }).unwrap()));
  };
  const postIt = async () => {
    if (!preview) return;
    await attempt(async () => {
      const { sheet: next } = await post({ sheet: name, body: { ...body, seen: preview.seen } }).unwrap();
      toast(`Sheet ${name} corrected by sheet ${next}`);
      sheet.forget();
      void navigate(withMonth(addressOf({ place: 'week-sheet', document: next })));
    });
  };
  return (
    <>
      <PageHead title={`Correct week sheet ${name}`}>
        <span>{weekWords(week)}</span>
      </PageHead>
      <p className="note mt-0">
        Type the hours as they should have been. All posted hours of whoever you change are reversed by a sheet of its own, which
        has the right ones after them.
      </p>
      <SheetGrid sheet={sheet} lists={lists} week={week} faults={faults} onTyped={changed} height="calc(100vh - 520px)" />
      <div className="mt-3 flex items-end gap-3">
        <Field label="Reason" fault={asked && reason.trim() === '' ? 'Say why it is corrected' : undefined} className="w-[320px]">
          <input
            value={reason}
            onChange={(event) => {
              setReason(event.target.value);
              changed();
            }}
          />
        </Field>
        <LateOn late={late} onTyped={changed} />
        <button
          type="button"
          className={preview ? 'button' : 'button main'}
          disabled={employees.length === 0 || sheet.settling || looking.isLoading}
          onClick={() => void showPreview()}
        >
          Preview the correction
        </button>
        <button
          type="button"
          className={preview ? 'button main' : 'button'}
          disabled={!preview || preview.missing.length > 0 || posting.isLoading}
          onClick={() => void postIt()}
        >
          Post the correction
        </button>
        <button type="button" className="button bare" onClick={onDone}>
          Cancel
        </button>
      </div>
      {employees.length === 0 && lines.length > 0 && (
        <p className="note">Nothing of this sheet is changed yet. Hours of other people alone go on a week sheet of their own.</p>
      )}
      {refused && <Refused message={refused.message} />}
      {preview && <TimePreviewShown preview={preview} />}
    </>
  );
}

/** People whose hours are not what was posted. */
function changedPeople(was: readonly TimeLineInput[], now: readonly TimeLineInput[]): string[] {
  const textOf = (lines: readonly TimeLineInput[], employee: string) =>
    JSON.stringify(
      lines
        .filter((it) => it.employee === employee)
        .map((it) => JSON.stringify(Object.entries(it).sort(([a], [b]) => (a < b ? -1 : 1))))
        .sort(),
    );
  const people = new Set(was.map((it) => it.employee));
  return [...people].filter((it) => textOf(was, it) !== textOf(now, it));
}
