import { displayDate } from '../../core/calendar/displayDate';
import type { JournalView } from '../../wire/ledger';

/** A journal as it is, or will be, posted. */
export function Journal({ journal, show }: { journal: JournalView; show: (cents: number) => string }) {
  const total = journal.lines.reduce((sum, line) => sum + line.debit, 0);
  return (
    <table className="ledger static-foot text-[13px]">
      <caption className="note pb-1 text-left text-[12.5px]">Journal of {displayDate(journal.dated)}</caption>
      <thead>
        <tr>
          <th>Account</th>
          <th className="num">Debit</th>
          <th className="num">Credit</th>
        </tr>
      </thead>
      <tbody>
        {journal.lines.map((line, i) => (
          <tr key={i}>
            <td>
              <span className="note">{line.account}</span> {line.name}
            </td>
            <td className="num">{line.debit ? show(line.debit) : ''}</td>
            <td className="num">{line.credit ? show(line.credit) : ''}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>Total</td>
          <td className="num">{show(total)}</td>
          <td className="num">{show(total)}</td>
        </tr>
      </tfoot>
    </table>
  );
}
