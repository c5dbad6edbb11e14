import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import type { ApplicationView } from '../../../wire/billing';
import { useBillAboveMutation } from '../../ground/api/api';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { amount, words } from '../../kit/typed/codecs';
import { useOpening } from '../../kit/useOpening';

/** Where lines pass their scheduled values by more than is allowed: says that they may, and why, or asks for it. */
export function BillAbove({ view, above }: { view: ApplicationView; above: number }) {
  const { exact } = useCurrency();
  const { open, show, close, button, onKeyDown } = useOpening();
  if (above <= view.above) return null;
  return open ? (
    <div onKeyDown={onKeyDown}>
      <Reason view={view} above={above} onDone={close} />
    </div>
  ) : (
    <p className="m-0 mt-2">
      Above scheduled values by {exact(above)} in all.{' '}
      <button ref={button} type="button" className="button" onClick={show}>
        Bill above them …
      </button>
    </p>
  );
}

function Reason({ view, above, onDone }: { view: ApplicationView; above: number; onDone: () => void }) {
  const { digits, exact } = useCurrency();
  const fields = useMemo(() => ({ by: amount(digits), reason: words('Say why; it stands on the application') }), [digits]);
  const form = useCodecForm(fields, { by: exact(above), reason: view.aboveReason });
  const [allow] = useBillAboveMutation();
  const onSubmit = form.submit(async (body) => {
    await allow({ job: view.job, application: view.number, body }).unwrap();
    toast(`Application ${view.number} may pass scheduled values by ${exact(body.by)}`);
    onDone();
  }, faultOf);
  return (
    <form aria-label="Bill above scheduled values" className="mt-3" onSubmit={onSubmit} noValidate>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('by', 'In all, up to', { className: 'w-[140px]' })}
        {form.input('reason', 'Reason', { className: 'w-[320px]', autoFocus: true })}
        <button className="button main mt-[20px]" disabled={form.busy}>
          Allow it
        </button>
        <button type="button" className="button bare mt-[20px]" onClick={onDone}>
          Cancel
        </button>
      </div>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
