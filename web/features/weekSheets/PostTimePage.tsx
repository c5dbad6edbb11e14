import { useState } from 'react';
import { Link } from 'react-router';
import { firstDay } from '../../../core/calendar/plainDate';
import { plural } from '../../../core/names/plural';
import { displayQuantity } from '../../../core/money/display';
import type { OutputOf } from '../../../wire/call';
import type { SheetRow, TimePreview, weekSheetCalls } from '../../../wire/weekSheets';
import { usePostTimeMutation, usePreviewTimeMutation, useReadyTimeQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { PageHead } from '../../kit/PageHead';
import { Empty, Refused } from '../../kit/States';
import { LateOn, useLateOn } from './LateOn';
import { Missing, TimePreviewShown } from './TimePreview';
import { weekWords } from '../../ground/weeks/weekWords';

/** Approved time, looked at and posted in one go. */
export function PostTimePage() {
  const ready = useReadyTimeQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <div className="page">
      <PageHead title="Post time" />
      <Loaded of={ready} what="the approved time">
        {(data) =>
          data.sheets.length === 0 ? (
            <Empty title="No approved time to post">
              <p className="note m-0">Once lines of a week sheet are approved, they are here.</p>
            </Empty>
          ) : (
            <Ready key={JSON.stringify(data)} ready={data} />
          )
        }
      </Loaded>
    </div>
  );
}

function Ready({ ready: { sheets, newest } }: { ready: OutputOf<typeof weekSheetCalls.readyTime> }) {
  const { asOf, lastDay } = useAsOf();
  const { exact } = useCurrency();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(
    () => new Set(sheets.filter((it) => it.missing.length === 0).map((it) => it.sheet)),
  );
  const [preview, setPreview] = useState<TimePreview | null>(null);
  const chosen = sheets.filter((it) => ticked.has(it.sheet));
  const late = useLateOn(newest !== null && sheets.some((it) => it.week < firstDay(newest)) ? firstDay(newest) : null);
  const [leaveOut, setLeaveOut] = useState(false);
  const missing = sheets.flatMap((it) => it.missing);
  const { refused, setRefused, attempt } = useAttempt();
  const [look, looking] = usePreviewTimeMutation();
  const [post, posting] = usePostTimeMutation();
  const names = [...new Set(chosen.map((it) => it.sheet))];
  const changed = () => {
    setPreview(null);
    setRefused(null);
  };
  const showPreview = () =>
    attempt(async () =>
      setPreview(await look({ body: { sheets: names, lateOn: late.on, leaveOut, asOf: asOf || lastDay } }).unwrap()),
    );
  const postIt = async () => {
    if (!preview) return;
    const cost = exact(preview.pay + preview.burden);
    await attempt(
      () => post({ body: { sheets: names, lateOn: late.on, leaveOut, seen: preview.seen } }).unwrap(),
      `Posted ${plural(preview.entries, 'line')} of time, ${cost}`,
    );
  };
  const hours = chosen.reduce((sum, it) => sum + it.hours.approved, 0);
  return (
    <>
      <ReadySheets
        sheets={sheets}
        ticked={ticked}
        onTick={(next) => {
          setTicked(next);
          changed();
        }}
      />
      <Missing missing={missing} />
      {missing.length > 0 && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={leaveOut}
            onChange={(event) => {
              setLeaveOut(event.target.checked);
              changed();
            }}
          />{' '}
          Post the others without them: lines without a rate stay approved
        </label>
      )}
      <div className="mt-3 flex items-end gap-3">
        <LateOn late={late} onTyped={changed} />
        <button
          type="button"
          className={preview ? 'button' : 'button main'}
          disabled={chosen.length === 0 || Boolean(late.fault) || looking.isLoading}
          onClick={() => void showPreview()}
        >
          Preview {displayQuantity(hours)} h
        </button>
        <button
          type="button"
          className={preview ? 'button main' : 'button'}
          disabled={!preview || (preview.missing.length > 0 && !preview.leftOut) || posting.isLoading}
          onClick={() => void postIt()}
        >
          {preview ? `Post ${plural(preview.entries, 'line')}, ${exact(preview.pay + preview.burden)}` : 'Post'}
        </button>
      </div>
      {refused && <Refused message={refused.message} />}
      {preview && <TimePreviewShown preview={preview} />}
    </>
  );
}

interface ReadyProps {
  sheets: readonly SheetRow[];
  ticked: ReadonlySet<string>;
  onTick: (ticked: ReadonlySet<string>) => void;
}

/** Sheets with approved time, each to be ticked. */
function ReadySheets({ sheets, ticked, onTick }: ReadyProps) {
  const withMonth = useWithMonth();
  const chosen = sheets.filter((it) => ticked.has(it.sheet));
  return (
    <table className="ledger static-foot max-w-[900px]">
      <thead>
        <tr>
          <th className="w-[28px]">
            <span className="sr-only">Post</span>
          </th>
          <th className="text-left">Sheet</th>
          <th className="text-left">Week</th>
          <th className="text-left">People</th>
          <th className="text-right">Hours approved</th>
        </tr>
      </thead>
      <tbody>
        {sheets.map((it) => (
          <tr key={`${it.sheet} ${it.week}`}>
            <td>
              <input
                type="checkbox"
                aria-label={`Sheet ${it.sheet}`}
                checked={ticked.has(it.sheet)}
                onChange={(event) =>
                  onTick(new Set(event.target.checked ? [...ticked, it.sheet] : [...ticked].filter((one) => one !== it.sheet)))
                }
              />
            </td>
            <td>
              <Link to={withMonth(addressOf({ place: 'week-sheet', document: it.sheet }))}>{it.sheet}</Link>
            </td>
            <td className="whitespace-nowrap">{weekWords(it.week)}</td>
            <td>{it.employees.join(', ')}</td>
            <td className="figure">{displayQuantity(it.hours.approved)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td />
          <td colSpan={3}>
            {chosen.length} of {sheets.length} ticked
          </td>
          <td className="figure">{displayQuantity(chosen.reduce((sum, it) => sum + it.hours.approved, 0))}</td>
        </tr>
      </tfoot>
    </table>
  );
}
