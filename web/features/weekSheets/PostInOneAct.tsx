import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { firstDay } from '../../../core/calendar/plainDate';
import { plural } from '../../../core/names/plural';
import type { TimeLineInput, TimePreview } from '../../../wire/weekSheets';
import { usePostHoursMutation, usePreviewHoursMutation } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { toast } from '../../kit/toast';
import { LateOn, useLateOn } from './LateOn';
import { TimePreviewShown } from './TimePreview';

interface PostProps {
  week: string;
  lines: readonly TimeLineInput[];
  /** Whether what is typed can be sent; says what is wrong where it cannot. */
  isRight: () => boolean;
  disabled: boolean;
  /** Does the work, and shows what is refused where the page shows it. */
  attempt: (work: () => Promise<unknown>) => Promise<boolean>;
  /** The hours are sent: nothing of them is typed any more. */
  onSent: () => void;
}

/** New hours entered, approved and posted in one act, after what that costs was seen: for whoever may do all three. */
export function PostInOneAct({ week, lines, isRight, disabled, attempt, onSent }: PostProps) {
  const { asOf, month } = useAsOf();
  const { exact } = useCurrency();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const [preview, setPreview] = useState<TimePreview | null>(null);
  const [look, looking] = usePreviewHoursMutation();
  const [post, posting] = usePostHoursMutation();
  const late = useLateOn(lines.some((it) => it.dated < firstDay(month)) ? firstDay(month) : null);
  const body = { week, lines: [...lines], lateOn: late.on };
  const asked = JSON.stringify(body);
  // What was shown is of the hours as they were: typed on, they are looked at anew.
  useEffect(() => setPreview(null), [asked]);
  const show = async () => {
    if (!isRight() || late.fault) return;
    await attempt(async () => setPreview(await look({ body: { ...body, asOf } }).unwrap()));
  };
  const postIt = async (seen: TimePreview) => {
    await attempt(async () => {
      const { sheet, entries, total } = await post({ body: { ...body, seen: seen.seen } }).unwrap();
      toast(`Week sheet ${sheet}: posted ${plural(entries, 'line')} of time, ${exact(total)}`);
      onSent();
      void navigate(withMonth(addressOf({ place: 'week-sheet', document: sheet })));
    });
  };
  return (
    <>
      <div className="mt-2 flex items-end gap-3" data-grave>
        <LateOn late={late} onTyped={() => setPreview(null)} />
        <button
          type="button"
          className={`button ${preview ? '' : 'main'}`}
          disabled={disabled || looking.isLoading}
          onClick={() => void show()}
        >
          Preview, to approve and post it now
        </button>
        {preview && (
          <button
            type="button"
            className="button main"
            disabled={disabled || preview.missing.length > 0 || posting.isLoading}
            onClick={() => void postIt(preview)}
          >
            Approve and post {plural(preview.entries, 'line')}, {exact(preview.pay + preview.burden)}
          </button>
        )}
      </div>
      {preview && <TimePreviewShown preview={preview} />}
    </>
  );
}
