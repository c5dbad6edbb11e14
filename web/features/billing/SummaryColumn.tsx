import type { ReactNode } from 'react';
import type { ApplicationView, SummaryItem } from '../../../wire/billing';
import { formatPercentShortest } from '../../../core/money/rate';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Journal } from '../../kit/Journal';

/** What the application comes to, from gross to payable, and the journal behind it. */
export function SummaryColumn({
  view,
  summary,
  worked,
  children,
}: {
  view: ApplicationView;
  summary: Record<SummaryItem, number>;
  worked: boolean;
  children?: ReactNode;
}) {
  const { exact, show, code } = useCurrency();
  const row = (label: string, key: SummaryItem, figure: string, strong = false, minus = false) => (
    <tr key={key}>
      <td style={{ fontWeight: strong ? 600 : 400 }}>{label}</td>
      <td className="num" style={{ fontWeight: strong ? 600 : 400 }}>
        {minus && summary[key] !== 0 ? '−' : ''}
        {worked ? (
          <Fig value={summary[key]} of={{ figure, job: view.job, application: view.number }} label={label} exact />
        ) : (
          exact(summary[key])
        )}
      </td>
    </tr>
  );
  return (
    <aside aria-label="What it comes to">
      <p className="m-0 mb-2 flex items-baseline justify-between border-b pb-2" style={{ borderColor: 'var(--rule)' }}>
        <span className="note">Payable, {code}</span>
        <b style={{ font: "600 24px/1 'Source Serif 4', serif" }}>
          {worked ? (
            <Fig
              value={summary.payable}
              of={{ figure: 'payable', job: view.job, application: view.number }}
              label="Payable"
              exact
            />
          ) : (
            exact(summary.payable)
          )}
        </b>
      </p>
      {children}
      <table className="ledger">
        <tbody>
          {row('Contract sum', 'contractSum', 'appContractSum')}
          {row('Work done to date', 'work', 'work')}
          {row('Materials on site', 'materials', 'materials')}
          {row('Gross to date', 'gross', 'gross', true)}
          {row('Retention to date', 'retention', 'retention', false, true)}
          {row('Net to date', 'net', 'net', true)}
          {row(
            view.previousNumber === null ? 'Certified before' : `Less previously certified, to no. ${view.previousNumber}`,
            'previouslyCertified',
            'previouslyCertified',
            false,
            true,
          )}
          {row('Due', 'due', 'due', true)}
          {row(`${view.taxName} ${formatPercentShortest(view.taxRate)} %`, 'tax', 'tax')}
          {row('Retention released', 'retentionReleased', 'retentionReleased')}
          {row('Balance to complete', 'balanceToComplete', 'balanceToComplete')}
        </tbody>
      </table>
      <p className="note my-2 text-[12.5px]">{view.retentionWords}</p>
      {view.journal && worked && (
        <section aria-label="Journal" className="mt-3">
          <h3>{view.postingId === null ? 'Journal on certification as applied' : `Posted as document ${view.postingId}`}</h3>
          <Journal journal={view.journal} show={show} />
        </section>
      )}
    </aside>
  );
}
