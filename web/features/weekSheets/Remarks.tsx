import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { TimeRemark } from '../../../core/labour/timeRemarks';
import type { SheetLine, TimeLineInput } from '../../../wire/weekSheets';
import { useTimeRemarksMutation } from '../../ground/api/api';
import { useWithMonth } from '../../ground/asOf';
import { useMay } from '../../ground/person';

/** How long nothing is typed before it is asked. */
const PAUSE = 600;
const SHOWN = 8;

/** What is unusual about lines, a moment after they have changed: it is said, and refuses nothing. */
export function Remarks({ lines }: { lines: readonly TimeLineInput[] }) {
  const [ask] = useTimeRemarksMutation();
  const [remarks, setRemarks] = useState<readonly TimeRemark[]>([]);
  const withMonth = useWithMonth();
  const may = useMay();
  const asked = JSON.stringify(lines);
  useEffect(() => {
    let current = true;
    const look = async () => {
      const of = JSON.parse(asked) as TimeLineInput[];
      // What cannot be asked now is said when it is posted.
      const found =
        of.length === 0
          ? []
          : await ask({ body: { lines: of } })
              .unwrap()
              .catch(() => []);
      if (current) setRemarks(found);
    };
    const timer = setTimeout(() => void look(), PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [asked, ask]);
  if (remarks.length === 0) return null;
  const unpriced = remarks.some((it) => it.kind === 'unpriced');
  return (
    <div role="status" className="my-3 border-l-4 border-[var(--accent)] px-3 py-2">
      <b>Look at these; nothing of it is refused</b>
      <ul className="m-0 list-none p-0">
        {remarks.slice(0, SHOWN).map((it) => (
          <li key={`${it.kind} ${it.message}`}>{it.message}</li>
        ))}
        {remarks.length > SHOWN && <li>{remarks.length - SHOWN} more</li>}
      </ul>
      {unpriced && (
        <p className="note m-0">
          Lines without a rate cannot be posted.{' '}
          {may('set-up') && <Link to={withMonth('/set-up/labour/employees')}>Enter what an hour costs beside the employee</Link>}
        </p>
      )}
    </div>
  );
}

/** A line of a sheet as it was entered. */
export function enteredLine(it: SheetLine): TimeLineInput {
  return {
    employee: it.employee,
    dated: it.dated,
    job: it.job,
    section: it.section,
    costCode: it.costCode,
    workKind: it.workKind,
    department: it.department,
    wageClass: it.wageClass,
    pay: it.pay,
    hours: it.hours,
    units: it.units,
    description: it.description,
    clock: it.clock,
    charge: it.charge,
  };
}
