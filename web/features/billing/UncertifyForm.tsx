import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationView } from '../../../wire/billing';
import { useUncertifyApplicationMutation } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { words } from '../../kit/typed/codecs';
import { useOpening } from '../../kit/useOpening';

/** Reverses the certification of the last certified application, with a reason; or says why it stays. */
export function UncertifyForm({ view }: { view: ApplicationView }) {
  const { open, show, close, button, onKeyDown } = useOpening();
  if (view.status !== 'certified') return null;
  if (view.refused.uncertify !== null) return <p className="note mt-5">{view.refused.uncertify}.</p>;
  return open ? (
    <div onKeyDown={onKeyDown}>
      <Reason view={view} onClose={close} />
    </div>
  ) : (
    <p className="mt-5">
      <button ref={button} type="button" className="button bare" onClick={show}>
        Reverse certification …
      </button>
    </p>
  );
}

function Reason({ view, onClose }: { view: ApplicationView; onClose: () => void }) {
  const fields = useMemo(() => ({ reason: words('Enter a reason; it stands with the reversal') }), []);
  const form = useCodecForm(fields, { reason: '' });
  const [reverse, { isLoading }] = useUncertifyApplicationMutation();
  const onSubmit = form.submit(async (body) => {
    const { postingId } = await reverse({ job: view.job, application: view.number, body }).unwrap();
    toast(`Certification of application ${view.number} reversed (document ${postingId}); it is submitted again`);
  }, faultOf);
  return (
    <form aria-label="Reverse certification" className="mt-5" onSubmit={onSubmit} noValidate data-grave>
      <p className="m-0 mb-2">
        Its journal is reversed on {displayDate(view.certifiedOn)}, the invoice is cancelled, and the application is submitted
        again, as it was applied for.
      </p>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('reason', 'Reason', { className: 'w-[360px]', autoFocus: true })}
        <button className="button main mt-[20px]" disabled={isLoading}>
          Reverse certification of application {view.number}
        </button>
        <button type="button" className="button bare mt-[20px]" onClick={onClose}>
          Cancel
        </button>
      </div>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
