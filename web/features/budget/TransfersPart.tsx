import { useTransfersQuery } from '../../ground/api/api';
import { useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Approvals } from '../../ground/approvals/Approvals';
import { May } from '../../ground/person';
import { TransferForm } from './TransferForm';
import { useOpening } from '../../kit/useOpening';

/** Beneath the budget: the log of transfers between its lines, and the way to make one. */
export function TransfersPart() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const { show } = useCurrency();
  const { data } = useTransfersQuery({ job, asOf });
  const form = useOpening();
  if (!data) return null;
  return (
    <section aria-label="Budget transfers" className="mt-4">
      <div className="mb-1 flex items-end justify-between">
        <h2>Budget transfers</h2>
        <May do="transfer-budget">
          <button
            ref={form.button}
            type="button"
            className="button"
            aria-expanded={form.open}
            onClick={form.open ? form.close : form.show}
          >
            Move budget between lines …
          </button>
        </May>
      </div>
      <Approvals kind="transfer" job={job} />
      {form.open && <TransferForm job={job} onDone={form.close} />}
      {data.length === 0 ? (
        <p className="note m-0">No budget transfers to date. The original budget stays as it was awarded.</p>
      ) : (
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th className="w-[40px]">No</th>
              <th className="w-[110px]">Day</th>
              <th>Reason</th>
              <th>Line</th>
              <th className="num">Hours</th>
              <th className="num">Moved</th>
              <th>By</th>
            </tr>
          </thead>
          <tbody>
            {data.flatMap((transfer) =>
              transfer.lines.map((line, i) => (
                <tr key={`${transfer.number}/${i}`}>
                  <td>{i === 0 && transfer.number}</td>
                  <td>{i === 0 && displayDate(transfer.dated)}</td>
                  <td>{i === 0 && transfer.reason}</td>
                  <td>
                    {line.section} {line.costCode} {line.costType}
                  </td>
                  <td className="num">{displayQuantity(line.hours ?? 0)}</td>
                  <td className="num">{show(line.amount)}</td>
                  <td className="note">{i === 0 && transfer.actor}</td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      )}
    </section>
  );
}
