import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent } from '../../../core/money/display';
import type { ChangeEffect } from '../../../wire/changes';
import { useCurrency } from '../../ground/company';

/** What approving a change as asked would do, now and then. */
export function ChangeEffects({ effect }: { effect: ChangeEffect }) {
  const { show, code } = useCurrency();
  const rows: readonly (readonly [string, readonly [string, string]])[] = [
    ['Contract sum', money(effect.contractSum)],
    ['Estimate at completion', money(effect.estimate)],
    ['Estimated profit', money(effect.profit)],
    ['Margin, %', [displayPercent(effect.margin[0]), displayPercent(effect.margin[1])]],
    ['Planned finish', [displayDate(effect.finish[0]), displayDate(effect.finish[1])]],
  ];
  function money([before, after]: readonly [number, number]): readonly [string, string] {
    return [show(before), show(after)];
  }
  return (
    <>
      <h3 className="mb-1">Effect on the job if approved as submitted</h3>
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th>{code}</th>
            <th className="num">Now</th>
            <th className="num">Then</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, [before, after]]) => (
            <tr key={name}>
              <td>{name}</td>
              <td className="num note">{before}</td>
              <td className="num" style={{ fontWeight: before === after ? 400 : 600 }}>
                {after}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
