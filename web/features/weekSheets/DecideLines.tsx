import { useState } from 'react';
import { TIME_LIFE } from '../../../core/labour/timeLife';
import { movesFrom } from '../../../core/life/life';
import { displayQuantity } from '../../../core/money/display';
import type { WeekSheetView } from '../../../wire/weekSheets';
import { useApproveTimeMutation, useReturnTimeMutation } from '../../ground/api/api';
import { useAttempt } from '../../ground/useAttempt';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';

interface Props {
  view: WeekSheetView;
  chosen: ReadonlySet<number>;
  onDone: () => void;
}

/** Approves the ticked lines, or returns them with a reason. */
export function DecideLines({ view: { sheet, seen, lines }, chosen, onDone }: Props) {
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState<string>();
  const { refused, attempt } = useAttempt();
  const [approve, approving] = useApproveTimeMutation();
  const [giveBack, returning] = useReturnTimeMutation();
  const busy = approving.isLoading || returning.isLoading;
  const ticked = lines.filter((it) => chosen.has(it.id) && movesFrom(TIME_LIFE, it.state).return);
  const submitted = ticked.filter((it) => movesFrom(TIME_LIFE, it.state).approve);
  const ids = (of: typeof lines) => of.map((it) => it.id);
  const count = (of: typeof lines) =>
    of.length === 0
      ? ''
      : `${of.length} ${of.length === 1 ? 'line' : 'lines'}, ${displayQuantity(of.reduce((sum, it) => sum + it.hours, 0))} h`;
  const approveThem = async () => {
    if (await attempt(() => approve({ sheet, body: { seen, lines: ids(submitted) } }).unwrap(), `Approved ${count(submitted)}`))
      onDone();
  };
  const returnThem = async () => {
    if (reason.trim() === '') return setFault('Say what is to be corrected');
    const work = () => giveBack({ sheet, body: { seen, lines: ids(ticked), reason } }).unwrap();
    if (await attempt(work, `Returned ${count(ticked)}`)) onDone();
  };
  return (
    <section aria-label="Approve or return" className="mt-3">
      <div className="flex flex-wrap items-end gap-3">
        <button
          type="button"
          className="button main"
          disabled={submitted.length === 0 || busy}
          onClick={() => void approveThem()}
        >
          Approve {count(submitted)}
        </button>
        <Field label="Reason for returning" fault={fault} className="w-[340px] max-w-full">
          <input
            value={reason}
            onChange={(event) => {
              setReason(event.target.value);
              setFault(undefined);
            }}
          />
        </Field>
        <button type="button" className="button" disabled={ticked.length === 0 || busy} onClick={() => void returnThem()}>
          Return {count(ticked)}
        </button>
      </div>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
