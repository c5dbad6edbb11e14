import { at } from '../../../core/errors/known';
import { useCertifyApplicationMutation, useReturnApplicationMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { ApplicationView } from '../../../wire/billing';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { tidyAmount } from '../../kit/typed/tidyAmount';
import { workApplication } from './workApplication';

/** Certifies a submitted application: as applied for, or line by line for what the client agreed. */
export function CertifyForm({ view }: { view: ApplicationView }) {
  const { month, lastDay } = useAsOf();
  const { digits, show, exact } = useCurrency();
  const [on, setOn] = useState(displayDate(lastDay > view.dated ? lastDay : view.dated));
  const [other, setOther] = useState(false);
  const [rows, setRows] = useState<GridRow[]>(() =>
    view.lines.map((line) => ({
      work: displayExact(line.appliedWork, digits),
      materials: displayExact(line.appliedMaterials, digits),
    })),
  );
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [certify, { isLoading }] = useCertifyApplicationMutation();
  const [returnToDraft] = useReturnApplicationMutation();
  const worked = useMemo(() => workApplication(view, rows, digits), [view, rows, digits]);
  const columns = useMemo(
    (): GridColumn[] => [
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
      { key: 'work', title: 'Work certified', width: 140, numeric: true, tidy: tidyAmount(digits) },
      { key: 'materials', title: 'On site certified', width: 140, numeric: true, tidy: tidyAmount(digits) },
    ],
    [view.lines, show, digits],
  );
  const day = readDate(on, month);
  const payable = other ? worked.summary.payable : view.summary.payable;
  const submit = async () => {
    if (!day) return setRefused({ message: 'Certified on: enter a date, e.g. 30 Apr 2031', faults: [] });
    if (worked.faults.size > 0) return setRefused({ message: at([...worked.faults.values()], 0), faults: [] });
    const lines = view.lines
      .map((line, i) => ({ line: line.line, work: at(worked.lines, i).work, materials: at(worked.lines, i).materials }))
      .filter((it, i) => it.work !== at(view.lines, i).appliedWork || it.materials !== at(view.lines, i).appliedMaterials);
    try {
      const { postingId } = await certify({
        job: view.job,
        application: view.number,
        body: { version: view.version, on: day, lines: other ? lines : [] },
      }).unwrap();
      toast(`Application ${view.number} certified, ${exact(payable)} payable (document ${postingId})`);
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  const withdraw = async () => {
    try {
      await returnToDraft({ job: view.job, application: view.number }).unwrap();
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return (
    <section aria-label="Certify" className="mt-5">
      <h3 className="mb-2">Client’s certificate</h3>
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Certified on">
          <input
            value={on}
            style={{ width: 130 }}
            onChange={(event) => setOn(event.target.value)}
            onBlur={() => day && setOn(displayDate(day))}
          />
        </Field>
        <label className="flex h-[30px] items-center gap-2">
          <input type="checkbox" checked={other} onChange={(event) => setOther(event.target.checked)} />
          for different amounts
        </label>
        <button type="button" className="button main" disabled={isLoading} onClick={() => void submit()}>
          Certify application {view.number}, {exact(payable)}
        </button>
        <button type="button" className="button bare" onClick={() => void withdraw()}>
          Return to draft
        </button>
      </div>
      {other && (
        <div className="mt-3">
          <EntryGrid
            label="Certified figures to date"
            columns={columns}
            rows={rows}
            onRows={setRows}
            faults={worked.faults}
            grows={false}
            height={320}
          />
          <p className="note">
            Certified {exact(worked.summary.gross)} to date against {exact(view.summary.gross)} applied for; the difference of{' '}
            {exact(view.summary.gross - worked.summary.gross)} stays open to be applied for again.
          </p>
        </div>
      )}
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
