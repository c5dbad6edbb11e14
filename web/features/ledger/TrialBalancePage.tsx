import { at } from '../../../core/errors/known';
import { useReportQuery } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';
import { PageHead } from '../../kit/PageHead';

/** Every account with its balance. */
export function TrialBalancePage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useReportQuery({ name: 'trial-balance', asOf: month });
  const { show, code } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the ledger" />;
  const rows = data.rows.slice(0, -1);
  const total = at(data.rows, -1);
  return (
    <div className="page" style={{ maxWidth: 900 }}>
      <PageHead title="Trial balance">
        <span className="flex gap-2">
          {['csv', 'xlsx', 'pdf'].map((format) => (
            <a
              key={format}
              className="button"
              href={hrefOf(CALLS.reportFile, { name: 'trial-balance', format, asOf: month })}
              download
            >
              {format.toUpperCase()}
            </a>
          ))}
        </span>
      </PageHead>
      {rows.length === 0 ? (
        <p>No postings to date.</p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th style={{ width: 80 }}>Account</th>
              <th>Name</th>
              <th className="num">Debit</th>
              <th className="num">Credit</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.account}>
                <td>{row.account}</td>
                <td>{row.name}</td>
                <td className="num">{row.debit ? show(row.debit as number) : ''}</td>
                <td className="num">{row.credit ? show(row.credit as number) : ''}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={2}>Total, {code}</td>
              <td className="num">{show(total.debit as number)}</td>
              <td className="num">{show(total.credit as number)}</td>
            </tr>
          </tfoot>
        </table>
      )}
    </div>
  );
}
