import { useDeleteApplicationMutation, useSaveApplicationMutation, useSubmitApplicationMutation } from '../../ground/api/api';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { ApplicationLinesInput, ApplicationView } from '../../../wire/billing';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { AgainstCost } from './AgainstCost';
import { SummaryColumn } from './SummaryColumn';
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
  return { keepNow: saveNow, refused, setRefused };
}

/** A draft application: per line, percent or amount to date, amount this period, or materials on site; the others follow. */
export function ApplicationDraft({ view }: { view: ApplicationView }) {
  const { month } = useAsOf();
  const { digits, show, exact } = useCurrency();
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const [rows, setRows] = useState<GridRow[]>(() => view.lines.map((line) => cellsOf(line, line.work, line.materials, digits)));
  const [dated, setDated] = useState(displayDate(view.dated));
  const [reference, setReference] = useState(view.reference);
  const worked = useMemo(() => workApplication(view, rows, digits), [view, rows, digits]);
  const day = readDate(dated, month);
  const body = useMemo<Typed | null>(
    () =>
      day && worked.faults.size === 0
        ? {
            dated: day,
            reference,
            lines: view.lines.map((line, i) => ({
              line: line.line,
              work: worked.lines[i]!.work,
              materials: worked.lines[i]!.materials,
            })),
          }
        : null,
    [day, reference, view.lines, worked],
  );
  const { keepNow, refused, setRefused } = useSaving(view, body);
  const [send, moving] = useSubmitApplicationMutation();
  const [remove] = useDeleteApplicationMutation();
  const change = (next: GridRow[]) =>
    setRows(
      next.map((row, i) => {
        const key = ENTRY_KEYS.find((it) => (row[it] ?? '') !== (rows[i]?.[it] ?? ''));
        return key ? followEntry(view.lines[i]!, row, key, digits) : row;
      }),
    );
  const offSchedule = view.lines.some(
    (line, i) => line.bySchedule !== null && (worked.lines[i]!.work !== line.bySchedule || worked.lines[i]!.materials !== 0),
  );
  const takeSchedule = () => setRows(view.lines.map((line) => cellsOf(line, line.bySchedule ?? 0, 0, digits)));
  const submit = async () => {
    if (worked.faults.size > 0) return setRefused({ message: [...worked.faults.values()][0]!, faults: [] });
    if (!(await keepNow())) return;
    try {
      await send({ job: view.job, application: view.number }).unwrap();
      toast(`Application ${view.number} of job ${view.job} is submitted: ${exact(worked.summary.payable)} payable`);
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const deleteDraft = async () => {
    try {
      await remove({ job: view.job, application: view.number }).unwrap();
      void navigate(keep(`/jobs/${encodeURIComponent(view.job)}/billing`));
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const columns = useMemo((): GridColumn[] => {
    const line = (index: number) => view.lines[index]!;
    return [
      {
        key: 'line',
        title: 'Line',
        width: 'auto',
        show: (_, i) => (
          <span className="block truncate" title={line(i).description}>
            <b>{line(i).line}</b> {line(i).description}
          </span>
        ),
      },
      { key: 'scheduled', title: 'Scheduled value', width: 102, numeric: true, show: (_, i) => show(line(i).scheduled) },
      {
        key: 'earned',
        title: 'Earned by cost',
        width: 108,
        numeric: true,
        show: (_, i) => (
          <AgainstCost job={view.job} sovLine={line(i).line} billed={worked.lines[i]?.work ?? 0} earned={line(i).earnedByCost} />
        ),
      },
      { key: 'before', title: 'Previous', width: 100, numeric: true, show: (_, i) => show(line(i).previousWork) },
      { key: 'percent', title: '% to date', width: 70, numeric: true },
      { key: 'work', title: 'Work to date', width: 104, numeric: true },
      { key: 'period', title: 'This period', width: 98, numeric: true },
      { key: 'materials', title: 'Materials on site', width: 92, numeric: true },
      { key: 'retention', title: 'Retention', width: 84, numeric: true, show: (_, i) => show(worked.lines[i]?.retention ?? 0) },
    ];
  }, [view.job, view.lines, worked, show]);
  const total = (value: (line: ApplicationView['lines'][number]) => number) =>
    show(view.lines.reduce((sum, line) => sum + value(line), 0));
  const footCell = { position: 'sticky', bottom: 0, background: 'var(--band)', fontWeight: 600 } as const;
  const foot = (
    <tfoot>
      <tr>
        {[
          'Total',
          total((line) => line.scheduled),
          total((line) => line.earnedByCost ?? 0),
          total((line) => line.previousWork),
          displayPercent(ratio(worked.summary.work, worked.summary.contractSum)),
          show(worked.summary.work),
          show(worked.summary.work - view.lines.reduce((sum, line) => sum + line.previousWork, 0)),
          show(worked.summary.materials),
          show(worked.summary.retention),
        ].map((text, i) => (
          <td key={i} className={`worked ${i > 0 ? 'figure' : ''}`} style={footCell}>
            {text}
          </td>
        ))}
      </tr>
    </tfoot>
  );
  return (
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 270px' }}>
      <div>
        <div className="mb-3 flex items-end gap-3">
          <Field label="Work to" className="shrink-0" fault={day ? undefined : 'Enter a date, e.g. 30 Apr 2031'}>
            <input
              value={dated}
              style={{ width: 130 }}
              onChange={(event) => setDated(event.target.value)}
              onBlur={() => day && setDated(displayDate(day))}
            />
          </Field>
          <Field label="Reference" className="shrink-0">
            <input value={reference} style={{ width: 200 }} onChange={(event) => setReference(event.target.value)} />
          </Field>
          {offSchedule && (
            <button type="button" className="button shrink-0" onClick={takeSchedule}>
              Take the schedule’s figures
            </button>
          )}
          <span className="note pb-1 text-[12.5px]">
            Enter percentage, amount to date, or amount this period; the other columns update. Saved automatically.
          </span>
        </div>
        <EntryGrid
          label={`Lines of application ${view.number}`}
          columns={columns}
          rows={rows}
          onRows={change}
          faults={worked.faults}
          grows={false}
          foot={foot}
          height="calc(100vh - 210px)"
        />
        {refused && <Refused message={refused.message} />}
      </div>
      <SummaryColumn
        view={view}
        summary={worked.summary}
        worked={JSON.stringify(worked.summary) === JSON.stringify(view.summary)}
      >
        <div className="mb-3 flex flex-wrap gap-2">
          <button type="button" className="button main" disabled={moving.isLoading} onClick={() => void submit()}>
            Submit, {exact(worked.summary.payable)}
          </button>
          <button type="button" className="button bare" onClick={() => void deleteDraft()}>
            Delete draft
          </button>
        </div>
      </SummaryColumn>
    </div>
  );
}
