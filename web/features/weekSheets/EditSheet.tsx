import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../kit/toast';
import { TIME_LIFE } from '../../../core/labour/timeLife';
import { movesFrom } from '../../../core/life/life';
import { displayQuantity } from '../../../core/money/display';
import type { TimeLists, WeekSheetView } from '../../../wire/weekSheets';
import { useAddSheetMutation, useSaveSheetMutation } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { useAttempt } from '../../ground/useAttempt';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { PageHead } from '../../kit/PageHead';
import { Refused } from '../../kit/States';
import { Remarks } from './Remarks';
import { Doubled } from './Doubled';
import { NewCodes, useAddingCodes } from '../../ground/costCodes/NewCodes';
import { unknownCodes } from '../../ground/costCodes/unknownCodes';
import { May, useMay } from '../../ground/person';
import { NewEmployee } from './NewEmployee';
import { PostInOneAct } from './PostInOneAct';
import { PersonTotals } from './PersonTotals';
import { placedFaults } from './grid/placedFaults';
import { keyedRows, sheetCodecs } from './grid/readSheet';
import { SheetGrid } from './grid/SheetGrid';
import { SheetTable } from './lines/SheetTable';
import { useSheet } from './grid/useSheet';
import { weekWords } from '../../ground/weeks/weekWords';
import { useNames } from './employeeNames';

interface EditProps {
  lists: TimeLists;
  week: string;
  /** Null: a new sheet. */
  view: WeekSheetView | null;
  onDone: (() => void) | null;
}

/** A sheet as it is typed, and how it is sent. */
function useEdit({ lists, week, view, onDone }: EditProps) {
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const start = useMemo(() => {
    const codecs = sheetCodecs(lists);
    const open = (view?.lines ?? []).filter((it) => movesFrom(TIME_LIFE, it.state).change);
    return keyedRows(open, codecs, week);
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
  const [heldUp, setHeldUp] = useState(false);
  const addingCodes = useAddingCodes();
  const [add, adding] = useAddSheetMutation();
  const [save, saving] = useSaveSheetMutation();
  const faults = placedFaults(read, asked, refused, (row, column) => (sheet.rows[row]?.[column] ?? '').trim());
  const settled = (view?.lines ?? []).filter((it) => !movesFrom(TIME_LIFE, it.state).change);
  const total = read.lines.reduce((sum, it) => sum + it.hours, 0);
  const count =
    total === 0 ? '' : `${read.lines.length} ${read.lines.length === 1 ? 'line' : 'lines'}, ${displayQuantity(total)} h`;
  // Gone once it is mended, or a code just added has come into the list.
  const wrong =
    heldUp && read.faults.size > 0
      ? `${read.faults.size} ${read.faults.size === 1 ? 'cell needs' : 'cells need'} attention; go to a cell to see why. Nothing is sent until they are right.`
      : null;
  const isRight = () => {
    setAsked(true);
    setHeldUp(true);
    return read.faults.size === 0;
  };
  const submit = async () => {
    if (!isRight()) return;
    await attempt(async () => {
      const { lines } = read;
      if (view) {
        await save({ sheet: view.sheet, body: { seen: view.seen, week, lines } }).unwrap();
        toast(`Week sheet ${view.sheet} submitted: ${count}`);
        sheet.forget();
        return lines.length === 0 && settled.length === 0 ? void navigate(withMonth(`/costs/time?on=${week}`)) : onDone?.();
      }
      const { sheet: name } = await add({ body: { week, lines } }).unwrap();
      toast(`Week sheet ${name} submitted: ${count}`);
      sheet.forget();
      void navigate(withMonth(addressOf({ place: 'week-sheet', document: name })));
    });
  };
  const canSend = view ? sheet.changed || start.some((it) => it.returned) : read.lines.length > 0;
  return {
    sheet,
    faults,
    settled,
    message: wrong ?? refused?.message,
    count,
    submit,
    isRight,
    attempt,
    onTyped: () => {
      setRefused(null);
      setHeldUp(false);
    },
    canSubmit: canSend && !sheet.settling && !addingCodes && !adding.isLoading && !saving.isLoading,
  };
}

/** The lines of a sheet that are not approved yet, to be typed; what is approved or posted stands beneath. */
export function EditSheet(props: EditProps) {
  const { lists, week, view, onDone } = props;
  const nameOf = useNames(lists);
  const { sheet, faults, settled, message, count, submit, isRight, attempt, onTyped, canSubmit } = useEdit(props);
  const may = useMay();
  const postsAtOnce = view === null && may('approve-time') && may('post-costs');
  const { read } = sheet;
  const { there, split } = sheet;
  const own = view?.sheet ?? '';
  const elsewhere = useMemo(() => there.filter((it) => it.sheet !== own && it.dated >= week), [there, own, week]);
  return (
    <>
      <PageHead title={view ? `Week sheet ${view.sheet}` : 'New week sheet'}>
        <span>{weekWords(week)}</span>
      </PageHead>
      <DraftNotes notice={sheet.notice} />
      <SheetGrid sheet={sheet} lists={lists} week={week} faults={faults} onTyped={onTyped} height="calc(100vh - 420px)">
        <May do="set-up">
          <NewEmployee />
        </May>
      </SheetGrid>
      <May do="set-up">
        <NewCodes
          codes={unknownCodes(
            sheet.rows.map((it) => it.costCode),
            new Set(lists.costCodes.map((it) => it.code)),
          )}
        />
      </May>
      <Doubled doubled={sheet.doubled} nameOf={nameOf} />
      <Remarks lines={read.lines} />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className={`button ${postsAtOnce ? '' : 'main'}`}
          disabled={!canSubmit}
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
      {postsAtOnce && (
        <PostInOneAct
          week={week}
          lines={read.lines}
          isRight={isRight}
          disabled={!canSubmit}
          attempt={attempt}
          onSent={sheet.forget}
        />
      )}
      {message && <Refused message={message} />}
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
