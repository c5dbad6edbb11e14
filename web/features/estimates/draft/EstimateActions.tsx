import { SureButton } from '../../../kit/SureButton';
import {
  useChooseEstimateMutation,
  useDeleteEstimateMutation,
  useLazyRepricingQuery,
  useRepriceEstimateMutation,
  useSendEstimateMutation,
} from '../../../ground/api/api';
import { Pop } from '../../../kit/Pop';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from '../../../kit/toast';
import { displayDate } from '../../../../core/calendar/displayDate';
import type { EstimateView, Repricing } from '../../../../wire/estimates';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { HistoryLink } from '../../../ground/HistoryLink';
import { Refused } from '../../../kit/States';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { day, words } from '../../../kit/typed/codecs';

/** What can be done with a draft: choose it, price it again, mark it as sent, award it, throw it away. */
export function EstimateActions({
  view,
  settle,
  onGone,
}: {
  view: EstimateView;
  settle: () => Promise<boolean>;
  onGone: () => void;
}) {
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const at = { job: view.job, estimate: view.number };
  const [choose] = useChooseEstimateMutation();
  const [discard] = useDeleteEstimateMutation();
  const base = `/jobs/${encodeURIComponent(view.job)}/estimates`;
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await settle();
      await work();
    } catch (error) {
      toast(faultOf(error).message);
    }
  };
  return (
    <>
      <span className="note whitespace-nowrap">
        Estimate {view.number}, draft
        {view.chosen && <b className="text-[var(--accent)]"> · chosen</b>}
      </span>
      <div className="ml-auto flex items-center gap-2">
        <HistoryLink subject={`${view.job}/${view.number}`} about="estimate" />
        {!view.chosen && view.refused.choose === null && (
          <button type="button" className="button bare" onClick={() => void attempt(() => choose(at).unwrap())}>
            Choose
          </button>
        )}
        <Reprice view={view} settle={settle} />
        <MarkSent view={view} settle={settle} onGone={onGone} />
        <SureButton
          onSure={() =>
            void attempt(async () => {
              await discard(at).unwrap();
              onGone();
              void navigate(withMonth(base));
            })
          }
        >
          Delete
        </SureButton>
        {view.jobStatus === 'tender' && (
          <Link className="button" to={withMonth(`${base}/${view.number}/award`)} onClick={() => void settle()}>
            Award …
          </Link>
        )}
      </div>
    </>
  );
}

function Reprice({ view, settle }: { view: EstimateView; settle: () => Promise<boolean> }) {
  const { show, exact } = useCurrency();
  const at = { job: view.job, estimate: view.number };
  const [repricing, setRepricing] = useState<Repricing | string | null>(null);
  const [preview] = useLazyRepricingQuery();
  const [reprice] = useRepriceEstimateMutation();
  const open = async (opened: boolean) => {
    if (!opened) return setRepricing(null);
    try {
      await settle();
      setRepricing(await preview(at).unwrap());
    } catch (error) {
      setRepricing(faultOf(error).message);
    }
  };
  const make = async () => {
    try {
      await reprice({ ...at, body: { seen: (repricing as Repricing).seen } }).unwrap();
      toast('Repriced with the price list of today');
      setRepricing(null);
    } catch (error) {
      setRepricing(faultOf(error).message);
    }
  };
  return (
    <Pop
      button="Reprice …"
      label="What repricing would change"
      align="end"
      className="p-4 w-[520px]"
      open={repricing !== null}
      onOpen={(opened) => void open(opened)}
    >
      {typeof repricing === 'string' ? (
        <p role="alert" className="fault m-0">
          {repricing}
        </p>
      ) : repricing && repricing.lines.length === 0 ? (
        <p className="m-0">Nothing would change: the price list says what this estimate was priced at.</p>
      ) : repricing ? (
        <>
          <div className="scroll max-h-[300px]" tabIndex={0} role="region" aria-label="Lines that change">
            <table className="ledger">
              <thead>
                <tr>
                  <th>Line</th>
                  <th>Because of</th>
                  <th className="num">Now</th>
                  <th className="num">Then</th>
                </tr>
              </thead>
              <tbody>
                {repricing.lines.map((it) => (
                  <tr key={it.line}>
                    <td className="truncate max-w-[170px]">
                      {it.line} {it.description}
                    </td>
                    <td>{it.because.join(', ')}</td>
                    <td className="num">{show(it.before)}</td>
                    <td className="num">{show(it.after)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="mb-2 mt-2">
            The price goes from {exact(repricing.before)} to <b>{exact(repricing.after)}</b>.
          </p>
          <button type="button" className="button main" onClick={() => void make()}>
            Reprice {repricing.lines.length} {repricing.lines.length === 1 ? 'line' : 'lines'}
          </button>
        </>
      ) : null}
    </Pop>
  );
}

function MarkSent({ view, settle, onGone }: { view: EstimateView; settle: () => Promise<boolean>; onGone: () => void }) {
  const { month, entryDay } = useAsOf();
  const [open, setOpen] = useState(false);
  const fields = useMemo(() => ({ on: day(month), reference: words() }), [month]);
  const form = useCodecForm(fields, { on: displayDate(entryDay), reference: '' });
  const [send, { isLoading }] = useSendEstimateMutation();
  const onSubmit = form.submit(async (body) => {
    if (!(await settle())) return form.refuse({ message: 'Some cells are wrong; mend them first', faults: [] });
    await send({ job: view.job, estimate: view.number, body }).unwrap();
    onGone();
    toast(`Estimate ${view.number} is sent, and frozen`);
    setOpen(false);
  }, faultOf);
  return (
    <Pop button="Mark as sent …" align="end" className="p-4 w-[280px]" open={open} onOpen={setOpen}>
      <form className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
        {form.input('on', 'Sent on')}
        {form.input('reference', 'Reference')}
        <p className="note m-0 text-[12.5px]">It is then locked. To change it, copy it.</p>
        {form.refused && <Refused message={form.refused} />}
        <button className="button main self-start" disabled={isLoading}>
          Mark as sent
        </button>
      </form>
    </Pop>
  );
}
