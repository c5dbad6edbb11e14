import { useReportQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';
import { PageHead } from '../../kit/PageHead';

const WORDS: Record<string, readonly [string, string, string]> = {
  'job-cost': ['Job cost', 'all cost entries', 'the job cost accounts'],
  'accounts-receivable': ['Accounts receivable', 'unpaid applications and releases', 'accounts receivable'],
  'retention-receivable': ['Retention receivable', 'retention held on every job', 'retention receivable'],
  'accounts-payable': ['Accounts payable', 'unpaid vendor bills', 'accounts payable'],
  journals: ['Journals balance', 'all debits to date', 'all credits to date'],
};

/** The proofs that what the postings say and what the accounts say agree. */
export function TieOutPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useReportQuery({ name: 'tie-out', asOf: month });
  const { exact, code } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="both sides of the books" />;
  const broken = data.rows.filter((row) => row.difference !== 0).length;
  return (
    <div className="page" style={{ maxWidth: 1000 }}>
      <PageHead title="Tie-out" />
      <p style={{ font: "400 17px/1.4 'Source Serif 4', serif", color: broken ? 'var(--loss)' : 'var(--good)' }}>
        {broken
          ? `${broken} of ${data.rows.length} proofs do not come out. Tell whoever looks after Ledrin; post nothing until they do.`
          : `All ${data.rows.length} reconciliations agree.`}
      </p>
      <table className="ledger">
        <thead>
          <tr>
            <th>Proof</th>
            <th className="num">Subledger</th>
            <th className="num">General ledger</th>
            <th className="num">Difference</th>
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row) => {
            const [name, postings, accounts] = WORDS[row.check as string] ?? [String(row.check), '', ''];
            return (
              <tr key={row.check} style={{ height: 44 }}>
                <td>
                  {name}
                  <br />
                  <span className="note text-[12.5px]">
                    {postings} against {accounts}
                  </span>
                </td>
                <td className="num">{exact(row.subledger as number)}</td>
                <td className="num">{exact(row.ledger as number)}</td>
                <td className="num" style={{ color: row.difference === 0 ? 'var(--good)' : 'var(--loss)', fontWeight: 600 }}>
                  {row.difference === 0 ? 'ties' : exact(row.difference as number)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="note">
        Amounts in {code}. Both sides are added up afresh from their own tables each time this page is read. This version posts no
        vendor bills, so accounts payable is zero.
      </p>
    </div>
  );
}
