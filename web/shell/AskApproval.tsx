import { Dialog } from 'radix-ui';
import { useMemo } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { toast } from '../kit/toast';
import { useSendAgainMutation } from '../ground/api/api';
import type { RootState } from '../ground/api/store';
import { approvalAsked, type Needed } from '../ground/approvals/approvalSlice';
import { faultOf } from '../ground/faults';
import { useCodecForm } from '../kit/form/useCodecForm';
import { Refused } from '../kit/States';
import { words } from '../kit/typed/codecs';

/** Comes up where what was to be done has to be approved first: asks for it, with a reason. What was typed stays beneath. */
export function AskApproval() {
  const needed = useSelector((state: RootState) => state.approval.needed);
  const dispatch = useDispatch();
  const close = () => void dispatch(approvalAsked());
  if (!needed) return null;
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-black/30" />
        <Dialog.Content className="pop fixed left-1/2 top-[140px] z-50 w-[460px] -translate-x-1/2 p-5">
          <Dialog.Title asChild>
            <h2>Ask for approval</h2>
          </Dialog.Title>
          <Dialog.Description asChild>
            <p>{needed.message}.</p>
          </Dialog.Description>
          <Ask needed={needed} onDone={close} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Ask({ needed: { sent }, onDone }: { needed: Needed; onDone: () => void }) {
  const [send] = useSendAgainMutation();
  const fields = useMemo(() => ({ reason: words('Say why, so that it can be decided') }), []);
  const form = useCodecForm(fields, { reason: (sent.body as { reason?: string } | undefined)?.reason ?? '' });
  const onSubmit = form.submit(async ({ reason }) => {
    await send({ ...sent, asking: reason }).unwrap();
    toast('Approval asked for. Once it is given, “Waiting for you” has it to carry out');
    onDone();
  }, faultOf);
  return (
    <form aria-label="Ask for approval" onSubmit={onSubmit} noValidate>
      {form.input('reason', 'Reason', { autoFocus: true })}
      {form.refused && <Refused message={form.refused} />}
      <div className="mt-3 flex gap-3">
        <button className="button main" disabled={form.busy}>
          Ask for approval
        </button>
        <Dialog.Close className="button bare">Not now</Dialog.Close>
      </div>
    </form>
  );
}
