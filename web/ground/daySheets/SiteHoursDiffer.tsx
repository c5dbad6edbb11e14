import { useState } from 'react';
import { keyOfHours } from '../../../core/daySheets/hoursDiffer';
import { displayQuantity } from '../../../core/money/display';
import { plural } from '../../../core/names/plural';
import type { DaySheetView } from '../../../wire/daySheets';
import { Refused } from '../../kit/States';
import { useTakeDayHoursMutation } from '../api/api';
import { useMay } from '../person';
import { useAttempt } from '../useAttempt';

interface Props {
  view: DaySheetView;
  nameOf: (employee: string) => string;
  title?: string;
}

/** Where site and office differ, row by row: the hours of the site are taken for the rows that are ticked, the others stay. */
export function SiteHoursDiffer({ view, nameOf, title = 'The week sheet has other hours' }: Props) {
  const [take, { isLoading }] = useTakeDayHoursMutation();
  const { refused, attempt } = useAttempt();
  const { job, dated, crew, seen, differences, weekSheet } = view;
  const free = differences.filter((it) => it.fixed === null).map(keyOfHours);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const rows = free.filter((it) => !left.has(it));
  const may = useMay()('approve-time');
  if (differences.length === 0) return null;
  const tick = (key: string, on: boolean) => setLeft(new Set(on ? [...left].filter((it) => it !== key) : [...left, key]));
  return (
    <section aria-label={title} className="mt-4 border-l-4 px-3 border-[var(--over)]">
      <h2 className="mb-1">{title}</h2>
      <div className="table-box" tabIndex={0} role="region" aria-label="Differences">
        <table className="ledger max-w-[860px]">
          <thead>
            <tr>
              {may && (
                <th scope="col">
                  <span className="sr-only">Take</span>
                </th>
              )}
              <th scope="col">Person</th>
              <th scope="col">Task</th>
              <th scope="col" className="num">
                Site
              </th>
              <th scope="col" className="num">
                Week sheet {weekSheet}
              </th>
              <th scope="col">Remark</th>
            </tr>
          </thead>
          <tbody>
            {differences.map((it) => {
              const key = keyOfHours(it);
              const task = [it.section, it.costCode, it.workKind, it.pay ?? ''].filter(Boolean).join(' · ');
              const name = nameOf(it.employee);
              return (
                <tr key={key}>
                  {may && (
                    <td>
                      {it.fixed === null && (
                        <input
                          type="checkbox"
                          aria-label={`${name}, ${task}`}
                          checked={!left.has(key)}
                          onChange={(event) => tick(key, event.target.checked)}
                        />
                      )}
                    </td>
                  )}
                  <td>{name}</td>
                  <td>{task}</td>
                  <td className="num">{displayQuantity(it.site)}</td>
                  <td className="num">{displayQuantity(it.office)}</td>
                  <td className="note">{it.fixed && FIXED[it.fixed]}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="note m-0">
        The week sheet counts for pay and cost. Take the site’s hours for the ticked rows; the others stay.
      </p>
      {refused && <Refused message={refused.message} />}
      {may && free.length > 0 && (
        <button
          type="button"
          className="button mt-2"
          disabled={rows.length === 0 || isLoading}
          onClick={() =>
            void attempt(() => take({ job, dated, crew, body: { seen, rows } }).unwrap(), 'Hours taken into the week sheet')
          }
        >
          Take the site’s hours, {plural(rows.length, 'row')}
        </button>
      )}
    </section>
  );
}

const FIXED = {
  approved: 'approved; return it on the week sheet first',
  posted: 'posted; correct the week sheet instead',
} as const;
