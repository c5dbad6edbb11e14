import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { addDays, addMonths, lastDay, periodOf } from '../../../core/calendar/plainDate';
import type { Closing } from '../../../wire/ledger';
import { useCloseBooksMutation, useClosingQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { displayMoment } from '../../kit/displayMoment';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { day, optional, words } from '../../kit/typed/codecs';

/** Up to which day the books are closed: nothing counts on it or before. */
export function ClosedBooks() {
  const closing = useClosingQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <section aria-label="Closed books">
      <h2 className="mb-2">Closed books</h2>
      <Loaded of={closing} what="how far the books are closed">
        {({ last }) => (
          <>
            <p className="mt-0">
              {last?.closedTo ? (
                <>
                  Closed up to <b>{displayDate(last.closedTo)}</b>
                </>
              ) : (
                'No day is closed: documents can be dated in any past month.'
              )}{' '}
              {last && (
                <span className="note">
                  {last.by}, {displayMoment(last.at)}
                  {last.reason && `: ${last.reason}`} <HistoryLink subject="books" />
                </span>
              )}
            </p>
            <May do="close-books">
              <CloseForm key={last?.at ?? ''} last={last} />
            </May>
          </>
        )}
      </Loaded>
    </section>
  );
}

function CloseForm({ last }: { last: Closing | null }) {
  const { month } = useAsOf();
  const [close] = useCloseBooksMutation();
  const fields = useMemo(() => ({ to: optional(day(month), null), reason: words() }), [month]);
  const before = lastDay(addMonths(month, -1));
  const closed = last?.closedTo ?? null;
  const next = closed !== null && closed >= before ? lastDay(addMonths(periodOf(closed), 1)) : before;
  const form = useCodecForm(fields, { to: displayDate(next), reason: '' });
  const to = form.valueOf('to');
  const opens = last?.closedTo && (to === null || to < last.closedTo);
  const onSubmit = form.submit(async (body) => {
    await close({ body }).unwrap();
    toast(body.to ? `Closed up to ${displayDate(body.to)}` : 'No day is closed');
  }, faultOf);
  return (
    <form aria-label="Close the books" onSubmit={onSubmit} noValidate>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('to', 'Closed up to', { className: 'w-[160px]', placeholder: 'no day' })}
        {form.input('reason', opens ? 'Reason for opening' : 'Note', { className: 'w-[210px]' })}
        <button className="button main mt-[20px]" disabled={form.busy}>
          {opens
            ? `Open from ${to ? displayDate(addDays(to, 1)) : 'the beginning'}`
            : `Close up to ${to ? displayDate(to) : '…'}`}
        </button>
      </div>
      <p className="note m-0 mt-1">
        Nothing is posted, approved, moved or forecast on a closed day; what comes late counts on the first open one. Whoever
        opens it again gives a reason.
      </p>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
