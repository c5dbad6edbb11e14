import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationLinesInput, ApplicationView } from '../../../wire/billing';
import { useDeleteApplicationMutation, useSaveApplicationMutation, useSubmitApplicationMutation } from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import type { GridRow } from '../../kit/grid/gridTypes';
import { useHistory } from '../../kit/useHistory';
import { readDate } from '../../kit/typed/readDate';
import { cellsOf, followEntry, workApplication, type EntryKey } from './workApplication';

const SAVE_PAUSE = 700;
const ENTRY_KEYS: readonly EntryKey[] = ['percent', 'work', 'period', 'materials'];

type Typed = Omit<ApplicationLinesInput, 'version'>;

/** Saves the draft on the server a moment after each change; what cannot be saved yet stays on the screen. */
function useSaving(view: ApplicationView, body: Typed | null) {
  const [save] = useSaveApplicationMutation();
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const kept = useRef(JSON.stringify(body));
  const version = useRef(view.version);
  const at = useMemo(() => ({ job: view.job, application: view.number }), [view.job, view.number]);
  const saveNow = async () => {
    const text = JSON.stringify(body);
    if (!body || text === kept.current) return body !== null;
    try {
      const saved = await save({ ...at, body: { ...body, version: version.current } }).unwrap();
      version.current = saved.version;
      kept.current = text;
      setRefused(null);
      return true;
    } catch (error) {
      setRefused(faultOf(error));
      return false;
    }
  };
  const latest = useRef(saveNow);
  latest.current = saveNow;
  useEffect(() => {
    const timer = setTimeout(() => void latest.current(), SAVE_PAUSE);
    return () => clearTimeout(timer);
  }, [body]);
  // What was typed last is saved when the page is left.
  useEffect(() => () => void latest.current(), []);
  return { saveNow, refused, setRefused };
}

export type ApplicationDraftState = ReturnType<typeof useApplicationDraft>;

/** What is typed of a draft application, its figures by the arithmetic of core, and what can be done with it. */
export function useApplicationDraft(view: ApplicationView) {
  const { month } = useAsOf();
  const { digits, exact } = useCurrency();
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const [rows, setRows] = useState<GridRow[]>(() => view.lines.map((line) => cellsOf(line, line.work, line.materials, digits)));
  const [dated, setDated] = useState(displayDate(view.dated));
  const [reference, setReference] = useState(view.reference);
  const history = useHistory(rows, setRows);
  const worked = useMemo(() => workApplication(view, rows, digits), [view, rows, digits]);
  const day = readDate(dated, month);
  const body = useMemo<Typed | null>(
    () =>
      day && worked.faults.size === 0
        ? {
            dated: day,
            reference,
            lines: view.lines.flatMap(({ line }, i) => {
              const figures = worked.lines[i];
              return figures ? [{ line, work: figures.work, materials: figures.materials }] : [];
            }),
          }
        : null,
    [day, reference, view.lines, worked],
  );
  const { saveNow, refused, setRefused } = useSaving(view, body);
  const [send, submitting] = useSubmitApplicationMutation();
  const [remove] = useDeleteApplicationMutation();
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return {
    ...{ view, rows, history, worked, dated, setDated, day, reference, setReference, refused },
    submitting: submitting.isLoading,
    change: (next: GridRow[]) =>
      setRows(
        next.map((row, i) => {
          const line = view.lines[i];
          const key = ENTRY_KEYS.find((it) => (row[it] ?? '') !== (rows[i]?.[it] ?? ''));
          return key && line ? followEntry(line, row, key, digits) : row;
        }),
      ),
    /** Something typed differs from the billing schedule's own figures. */
    offSchedule: view.lines.some(({ bySchedule }, i) => {
      const line = worked.lines[i];
      return bySchedule !== null && line !== undefined && (line.work !== bySchedule || line.materials !== 0);
    }),
    takeSchedule: () => setRows(view.lines.map((line) => cellsOf(line, line.bySchedule ?? 0, 0, digits))),
    submit: async () => {
      const [wrong] = worked.faults.values();
      if (wrong !== undefined) return setRefused({ message: wrong, faults: [] });
      if (!(await saveNow())) return;
      await attempt(async () => {
        await send({ job: view.job, application: view.number }).unwrap();
        toast(`Application ${view.number} of job ${view.job} is submitted: ${exact(worked.summary.payable)} payable`);
      });
    },
    deleteDraft: () =>
      attempt(async () => {
        await remove({ job: view.job, application: view.number }).unwrap();
        void navigate(keep(`/jobs/${encodeURIComponent(view.job)}/billing`));
      }),
  };
}
