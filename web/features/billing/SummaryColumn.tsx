import type { ReactNode } from 'react';
import { summaryFigure, type SummaryFigure } from '../../../core/billing/summaryFigures';
import { formatPercentShortest } from '../../../core/money/rate';
import type { ApplicationView } from '../../../wire/billing';
import type { JournalView } from '../../../wire/ledger';
import { useCurrency } from '../../ground/company';
import { Fig } from '../../ground/workings/Fig';
import { Journal } from '../../kit/Journal';

/** The figures of the column, in order; payable stands above them. */
const SHOWN: readonly SummaryFigure[] = [
  'contractSum',
  'work',
  'materials',
  'gross',
  'retention',
  'net',
  'previouslyCertified',
  'due',
  'tax',
  'retentionReleased',
  'balanceToComplete',
];

interface SummaryProps {
  view: ApplicationView;
  summary: Record<SummaryFigure, number>;
  /** False while what is typed is not saved: figures that are not saved have no workings to open. */
  worked: boolean;
  /** What certifying would post, where it was asked for. */
  journal?: JournalView;
}

/** What the application comes to, from gross to payable, and the journal behind it. */
export function SummaryColumn({ view, summary, worked, journal, children }: SummaryProps & { children?: ReactNode }) {
  const { code } = useCurrency();
  return (
    <aside aria-label="What it comes to">
      <p className="head-line m-0 mb-2 flex items-baseline justify-between pb-2">
        <span className="note">Payable, {code}</span>
        <b className="payable">
          <SummaryAmount figure="payable" view={view} summary={summary} worked={worked} />
        </b>
      </p>
      {children}
      <table className="ledger">
        <tbody>
          {SHOWN.map((figure) => (
            <SummaryRow key={figure} figure={figure} view={view} summary={summary} worked={worked} />
          ))}
        </tbody>
      </table>
      <p className="note my-2 text-[12.5px]">{view.retentionWords}</p>
      <JournalOf view={view} journal={journal ?? (worked ? view.journal : null)} asked={journal !== undefined} />
    </aside>
  );
}

function JournalOf({ view, journal, asked }: { view: ApplicationView; journal: JournalView | null; asked: boolean }) {
  const { show } = useCurrency();
  if (!journal) return null;
  const planned = asked ? 'Journal on certification' : 'Journal on certification as applied';
  return (
    <section aria-label="Journal" className="mt-3">
      <h3>{view.postingId === null ? planned : `Posted as document ${view.postingId}`}</h3>
      <Journal journal={journal} show={show} />
    </section>
  );
}

function SummaryRow({ figure, ...props }: SummaryProps & { figure: SummaryFigure }) {
  const { sum, less } = summaryFigure(figure);
  const strong = sum && figure !== 'contractSum' ? 'font-semibold' : '';
  return (
    <tr>
      <td className={strong}>{labelOf(figure, props.view)}</td>
      <td className={`num ${strong}`}>
        {less && props.summary[figure] !== 0 ? '−' : ''}
        <SummaryAmount figure={figure} {...props} />
      </td>
    </tr>
  );
}

function SummaryAmount({ figure, view, summary, worked }: SummaryProps & { figure: SummaryFigure }) {
  const { exact } = useCurrency();
  if (!worked) return <>{exact(summary[figure])}</>;
  const of = { figure, job: view.job, application: view.number };
  return <Fig value={summary[figure]} of={of} label={labelOf(figure, view)} exact />;
}

/** The figure's name; where the application knows more, with it. */
function labelOf(figure: SummaryFigure, view: ApplicationView): string {
  const { title } = summaryFigure(figure);
  if (figure === 'tax') return `${view.taxName} ${formatPercentShortest(view.taxRate)} %`;
  if (figure === 'previouslyCertified' && view.previousNumber !== null) return `${title}, to no. ${view.previousNumber}`;
  return title;
}
