import { displayQuantity } from '../../../core/money/display';
import { PAY_CLASSES } from '../../../core/labour/payClass';
import type { MissingRate, TimePreview } from '../../../wire/weekSheets';
import { Link } from 'react-router';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { useMay } from '../../ground/person';
import { useCurrency } from '../../ground/company';
import { PostingPreview } from '../../ground/PostingPreview';
import { withDisplayDates } from '../../../core/calendar/displayDate';

/** What posting time would do: what it costs, the lines it takes beyond their budget, and the journal. */
export function TimePreviewShown({ preview }: { preview: TimePreview }) {
  const { exact, code } = useCurrency();
  const figures: [string, string][] = [
    [`Pay, ${code}`, exact(preview.pay)],
    ['Burden', exact(preview.burden)],
    ['Cost', exact(preview.pay + preview.burden)],
    ['Hours', displayQuantity(preview.hours)],
    ...PAY_CLASSES.filter((it) => preview.classes[it] !== 0).map((it): [string, string] => [
      `of which ${it}`,
      displayQuantity(preview.classes[it]),
    ]),
  ];
  return (
    <>
      <Missing missing={preview.missing} />
      <p className="mb-0 mt-4 flex flex-wrap gap-x-6" role="status">
        {figures.map(([label, value]) => (
          <span key={label}>
            <span className="note">{label}</span> <b className="figure">{value}</b>
          </span>
        ))}
        {preview.late > 0 && (
          <span className="note">
            {preview.late} {preview.late === 1 ? 'line counts' : 'lines count'} on a later day than worked
          </span>
        )}
      </p>
      <PostingPreview preview={preview} />
    </>
  );
}

/** Lines that have no rate: nothing is posted while there are any. */
export function Missing({ missing }: { missing: readonly MissingRate[] }) {
  const withMonth = useWithMonth();
  const may = useMay();
  if (missing.length === 0) return null;
  return (
    <div role="alert" className="my-3 border-l-4 border-[var(--loss)] bg-[var(--loss-soft)] px-3 py-2">
      <b>{missing.length === 1 ? 'A line has no rate' : `${missing.length} lines have no rate`}</b>
      <ul className="m-0 list-none p-0">
        {missing.slice(0, SHOWN).map((it) => (
          <li key={`${it.sheet}/${it.line}`}>
            <Link to={withMonth(addressOf({ place: 'week-sheet', document: it.sheet }))}>Sheet {it.sheet}</Link>:{' '}
            {withDisplayDates(it.message)}
          </li>
        ))}
        {missing.length > SHOWN && <li>{missing.length - SHOWN} more</li>}
      </ul>
      {may('set-up') && <Link to={withMonth('/set-up/labour/employees')}>Enter what an hour costs beside the employee</Link>}
    </div>
  );
}

const SHOWN = 8;
