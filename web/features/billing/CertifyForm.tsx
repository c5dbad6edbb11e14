import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { at } from '../../../core/errors/known';
import { displayExact } from '../../../core/money/display';
import type { ApplicationView, CertificationPreview } from '../../../wire/billing';
import {
  useCertifyApplicationMutation,
  usePreviewCertificationMutation,
  useReturnApplicationMutation,
} from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { May } from '../../ground/person';
import { faultOf } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { amount, day, tidyOf } from '../../kit/typed/codecs';
import { useUnsaved } from '../../kit/unsaved';
import { useAskedPreview } from './useAskedPreview';
import { workApplication, type WorkedApplication } from './workApplication';

interface CertifyProps {
  view: ApplicationView;
  /** Told what certifying would post, whenever what is typed says something else; null while it cannot be certified so. */
  onPreview: (preview: CertificationPreview | null) => void;
}

/** Certifies a submitted application: as applied for, or line by line for what the client agreed. */
export function CertifyForm({ view, onPreview }: CertifyProps) {
  const { month, entryDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [other, setOther] = useState(false);
  const [start] = useState<GridRow[]>(() =>
    view.lines.map((line) => ({
      work: displayExact(line.appliedWork, digits),
      materials: displayExact(line.appliedMaterials, digits),
    })),
  );
  const [rows, setRows] = useState(start);
  useUnsaved(other && JSON.stringify(rows) !== JSON.stringify(start));
  const fields = useMemo(() => ({ on: day(month) }), [month]);
  const form = useCodecForm(fields, { on: displayDate(entryDay > view.dated ? entryDay : view.dated) });
  const [certify, { isLoading }] = useCertifyApplicationMutation();
  const [returnToDraft] = useReturnApplicationMutation();
  const worked = useMemo(() => workApplication(view, rows, digits), [view, rows, digits]);
  const payable = other ? worked.summary.payable : view.summary.payable;
  const application = { job: view.job, application: view.number };
  const on = form.valueOf('on');
  const lines = other ? certifiedLines(view, worked) : [];
  const [ask] = usePreviewCertificationMutation();
  const body = on === null || (other && worked.faults.size > 0) ? null : { version: view.version, on, lines };
  useAskedPreview(ask, body && { ...application, body }, onPreview);
  const onSubmit = form.submit(async ({ on }) => {
    const [fault] = worked.faults.values();
    if (other && fault) return form.refuse({ message: fault, faults: [] });
    const body = { version: view.version, on, lines };
    const { postingId } = await certify({ ...application, body }).unwrap();
    toast(`Application ${view.number} certified, ${exact(payable)} payable (document ${postingId})`);
  }, faultOf);
  const withdraw = () =>
    returnToDraft(application)
      .unwrap()
      .catch((error: unknown) => form.refuse(faultOf(error)));
  return (
    <form aria-label="Certify" className="mt-5" onSubmit={onSubmit} noValidate data-grave>
      <h3 className="mb-2">Client’s certificate</h3>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('on', 'Certified on', { className: 'w-[140px]' })}
        <label className="mt-[20px] flex h-[30px] items-center gap-2">
          <input type="checkbox" checked={other} onChange={(event) => setOther(event.target.checked)} />
          for different amounts
        </label>
        <button className="button main mt-[20px]" disabled={isLoading}>
          Certify application {view.number}, {exact(payable)}
        </button>
        <May do="apply">
          <button type="button" className="button bare mt-[20px]" onClick={() => void withdraw()}>
            Return to draft
          </button>
        </May>
      </div>
      {other && <CertifiedLines view={view} worked={worked} rows={rows} onRows={setRows} />}
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

/** The lines on which the client agreed something other than was applied for. */
function certifiedLines(view: ApplicationView, worked: WorkedApplication) {
  return view.lines
    .map((line, i) => ({ line: line.line, work: at(worked.lines, i).work, materials: at(worked.lines, i).materials }))
    .filter((it, i) => it.work !== at(view.lines, i).appliedWork || it.materials !== at(view.lines, i).appliedMaterials);
}

interface LinesProps {
  view: ApplicationView;
  worked: WorkedApplication;
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
}

function CertifiedLines({ view, worked, rows, onRows }: LinesProps) {
  const { digits, show, exact } = useCurrency();
  const columns = useMemo((): GridColumn[] => {
    const tidy = tidyOf(amount(digits));
    return [
      {
        key: 'line',
        title: 'Line',
        width: 'auto',
        show: (_, i) => (
          <span className="block truncate">
            <b>{at(view.lines, i).line}</b> {at(view.lines, i).description}
          </span>
        ),
      },
      {
        key: 'applied',
        title: 'Work applied for',
        width: 130,
        numeric: true,
        show: (_, i) => show(at(view.lines, i).appliedWork),
      },
      {
        key: 'appliedMaterials',
        title: 'On site applied for',
        width: 130,
        numeric: true,
        show: (_, i) => show(at(view.lines, i).appliedMaterials),
      },
      { key: 'work', title: 'Work certified', width: 140, numeric: true, tidy },
      { key: 'materials', title: 'On site certified', width: 140, numeric: true, tidy },
    ];
  }, [view.lines, show, digits]);
  const difference = view.summary.gross - worked.summary.gross;
  return (
    <div className="mt-3">
      <EntryGrid
        label="Certified figures to date"
        columns={columns}
        rows={rows}
        onRows={onRows}
        faults={worked.faults}
        grows={false}
        height={320}
      />
      <p className="note">
        Certified {exact(worked.summary.gross)} to date against {exact(view.summary.gross)} applied for
        {difference > 0 && `; the difference of ${exact(difference)} can be applied for again`}
        {difference < 0 && `: ${exact(-difference)} more than was applied for`}.
      </p>
    </div>
  );
}
