import { useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { present } from '../../../core/errors/known';
import type { ApplicationLinesInput, ApplicationView, BilledLineView } from '../../../wire/billing';
import {
  useBillApplicationMutation,
  useDeleteApplicationMutation,
  useSaveApplicationMutation,
  useSubmitApplicationMutation,
} from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, isConflict } from '../../ground/faults';
import { useAttempt } from '../../ground/useAttempt';
import { useDraftRows } from '../../kit/draft/useDraftRows';
import { useSaveQueue } from '../../kit/draft/useSaveQueue';
import { ROW_KEY, type GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { toast } from '../../kit/toast';
import { useHistory } from '../../kit/useHistory';
import { useUnsaved } from '../../kit/unsaved';
import { cellsOf, followEntry, workApplication, type EntryKey } from './workApplication';

const ENTRY_KEYS: readonly EntryKey[] = ['percent', 'work', 'period', 'materials'];

type Typed = Omit<ApplicationLinesInput, 'version'>;

/** The row of what is typed above the lines; no line is called so. */
const HEAD = ' head';

/** The rows of a draft as it is saved: its head, and each line under its own name. */
function savedRows(view: ApplicationView, digits: number): GridRow[] {
  return [
    { [ROW_KEY]: HEAD, dated: displayDate(view.dated), reference: view.reference },
    ...view.lines.map((line) => lineRow(line, line.work, line.materials, digits)),
  ];
}

const lineRow = (line: BilledLineView, work: number, materials: number, digits: number): GridRow => ({
  ...cellsOf(line, work, materials, digits),
  [ROW_KEY]: line.line,
});

/** What a page was shown: a change approved meanwhile brings a line, or alters one, without a new version. */
const seenOf = ({ lines }: ApplicationView, version: number) =>
  `${version} ${lines.map((it) => `${it.line}:${it.scheduled}`).join(' ')}`;

/** What is saved of the rows; null where they cannot be yet. */
function bodyOf(view: ApplicationView, rows: readonly GridRow[], head: GridRow, month: string, digits: number): Typed | null {
  const worked = workApplication(view, rows, digits);
  const day = readDate(head.dated ?? '', month);
  if (!day || worked.faults.size > 0) return null;
  const lines = view.lines.map(({ line }, i) => {
    const { work, materials } = present(worked.lines[i]);
    return { line, work, materials };
  });
  return { dated: day, reference: head.reference ?? '', lines };
}

const textOf = (body: Typed | null) => body && JSON.stringify(body);

/** The rows as they are typed, in the order of the lines that are there now, and what is typed above them. */
function useRows(view: ApplicationView, digits: number, onElsewhere: () => void) {
  const start = useMemo(() => savedRows(view, digits), [view, digits]);
  const { version } = view;
  const name = `application ${view.job}/${view.number}`;
  const draft = useDraftRows({ name, seen: seenOf(view, version), start, whole: true, version, onElsewhere });
  const byKey = useMemo(() => new Map(draft.rows.map((it) => [it[ROW_KEY], it])), [draft.rows]);
  const head = byKey.get(HEAD) ?? {};
  const rows = useMemo(
    () => view.lines.map((line) => byKey.get(line.line) ?? lineRow(line, line.work, line.materials, digits)),
    [view.lines, byKey, digits],
  );
  return {
    draft,
    start,
    head,
    rows,
    setLines: (next: readonly GridRow[]) => draft.setRows([{ ...head, [ROW_KEY]: HEAD }, ...next]),
    setHead: (typed: GridRow) => draft.setRows([{ ...head, ...typed, [ROW_KEY]: HEAD }, ...rows]),
  };
}

/** Saves the draft on the server a moment after each change, over what was saved before; `onStale`: somebody else saved it since. */
function useSaving(view: ApplicationView, typed: ReturnType<typeof useRows>, body: Typed | null, onStale: () => void) {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const [save] = useSaveApplicationMutation();
  const { draft, start, rows, head } = typed;
  const version = useRef(view.version);
  version.current = Math.max(version.current, view.version);
  const there = useMemo(
    () => textOf(bodyOf(view, start.slice(1), present(start[0]), month, digits)),
    [view, start, month, digits],
  );
  const latest = useRef({ view, rows, head });
  latest.current = { view, rows, head };
  const queue = useSaveQueue(textOf(body), there, async (text) => {
    const sent = latest.current;
    const saved = await save({
      job: sent.view.job,
      application: sent.view.number,
      body: { ...(JSON.parse(text) as Typed), version: version.current },
    })
      .unwrap()
      .catch((error: unknown) => {
        if (isConflict(error)) onStale();
        throw error;
      });
    version.current = saved.version;
    draft.saved({
      seen: seenOf(sent.view, saved.version),
      version: saved.version,
      rows: [{ ...sent.head, [ROW_KEY]: HEAD }, ...sent.rows],
    });
  });
  return { ...queue, version };
}

export type ApplicationDraftState = ReturnType<typeof useApplicationDraft>;

/** What is typed of a draft application, its figures by the arithmetic of core, and what can be done with it. */
export function useApplicationDraft(view: ApplicationView, onStale: () => void = () => undefined) {
  const { month } = useAsOf();
  const { digits, exact } = useCurrency();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const at = { job: view.job, application: view.number };
  const typed = useRows(view, digits, onStale);
  const { rows, head, draft, setLines, setHead } = typed;
  const history = useHistory<readonly GridRow[]>(rows, setLines);
  const worked = useMemo(() => workApplication(view, rows, digits), [view, rows, digits]);
  const body = useMemo(() => bodyOf(view, rows, head, month, digits), [view, rows, head, month, digits]);
  const { settle, failed, isSaved, version } = useSaving(view, typed, body, onStale);
  useUnsaved(draft.changed && body === null);
  const { refused, setRefused, attempt } = useAttempt();
  const [send, submitting] = useSubmitApplicationMutation();
  const [billIt, billing] = useBillApplicationMutation();
  /** Everything typed is right and saved: it can be sent on. */
  const ready = async () => {
    const [wrong] = worked.faults.values();
    if (wrong !== undefined) setRefused({ message: wrong, faults: [] });
    return wrong === undefined && (await settle());
  };
  const [remove] = useDeleteApplicationMutation();
  return {
    view,
    rows,
    history,
    worked,
    setHead,
    notice: draft.notice,
    dated: head.dated ?? '',
    day: readDate(head.dated ?? '', month),
    reference: head.reference ?? '',
    refused: refused ?? (failed === null ? null : faultOf(failed)),
    submitting: submitting.isLoading || billing.isLoading,
    isSaved,
    savedVersion: version.current,
    change: (next: readonly GridRow[]) => {
      setRefused(null);
      setLines(
        next.map((row, i) => {
          const line = view.lines[i];
          const key = ENTRY_KEYS.find((it) => (row[it] ?? '') !== (rows[i]?.[it] ?? ''));
          return key && line ? { ...followEntry(line, row, key, digits), [ROW_KEY]: line.line } : row;
        }),
      );
    },
    /** Something typed differs from the billing schedule's own figures. */
    offSchedule: view.lines.some(({ bySchedule }, i) => {
      const line = worked.lines[i];
      return bySchedule !== null && line !== undefined && (line.work !== bySchedule || line.materials !== 0);
    }),
    /** Every line at the same percentage to date; the amounts of work follow, materials stay. */
    takeWhole: (percent: string) =>
      setLines(
        view.lines.map((line, i) => ({
          ...followEntry(line, { ...rows[i], percent }, 'percent', digits),
          [ROW_KEY]: line.line,
        })),
      ),
    takeSchedule: () => setLines(view.lines.map((line) => lineRow(line, line.bySchedule ?? 0, 0, digits))),
    submit: async () => {
      if (!(await ready())) return;
      const message = `Application ${view.number} of job ${view.job} is submitted: ${exact(worked.summary.payable)} payable`;
      if (await attempt(() => send(at).unwrap(), message)) draft.forget();
    },
    /** In one act: applied for, certified as applied for, numbered and posted. Throws what is refused. */
    bill: async (on: string) => {
      if (!(await ready())) return;
      const { postingId } = await billIt({ ...at, body: { version: version.current, on } }).unwrap();
      draft.forget();
      toast(
        `Application ${view.number} of job ${view.job} is billed: ${exact(worked.summary.payable)} payable (document ${postingId})`,
      );
    },
    deleteDraft: () =>
      attempt(async () => {
        await remove(at).unwrap();
        draft.forget();
        void navigate(withMonth(`/jobs/${encodeURIComponent(view.job)}/billing`));
      }),
  };
}
