import { useMemo, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationView, BillPreview } from '../../../wire/billing';
import { usePreviewBillMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { day } from '../../kit/typed/codecs';
import type { ApplicationDraftState } from './useApplicationDraft';
import { useAskedPreview } from './useAskedPreview';

interface BillProps {
  view: ApplicationView;
  draft: ApplicationDraftState;
  /** Told what billing would post; null while something is typed that is not saved, or it cannot be billed so. */
  onPreview: (preview: BillPreview | null) => void;
}

/** Bills a draft in one act, where the client never certifies: applied for, certified as applied for, numbered. */
export function BillForm({ view, draft, onPreview }: BillProps) {
  const { month, entryDay } = useAsOf();
  const { exact } = useCurrency();
  const [preview, setPreview] = useState<BillPreview | null>(null);
  const fields = useMemo(() => ({ on: day(month) }), [month]);
  const form = useCodecForm(fields, { on: displayDate(entryDay > view.dated ? entryDay : view.dated) }, { partOfPage: true });
  const [ask] = usePreviewBillMutation();
  const on = form.valueOf('on');
  // Asked anew whenever another version is saved.
  const args = { job: view.job, application: view.number, body: { version: draft.savedVersion, on: on ?? '' } };
  useAskedPreview(ask, on === null || !draft.isSaved ? null : args, (it) => {
    setPreview(it);
    onPreview(it);
  });
  const onSubmit = form.submit(({ on }) => draft.bill(on), faultOf);
  return (
    <form aria-label="Bill it" className="mb-3 flex flex-wrap items-end gap-2" onSubmit={onSubmit} noValidate data-grave>
      {form.input('on', 'Billed on', { className: 'w-[140px]' })}
      <button className="button main" disabled={draft.submitting}>
        Bill it, {exact(draft.worked.summary.payable)}
      </button>
      {preview && (
        <p className="note m-0 basis-full text-[12.5px]" role="status">
          Invoice {preview.invoice}, due {displayDate(preview.dueOn)}. {view.client} never certifies: what is applied for stands.
        </p>
      )}
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
