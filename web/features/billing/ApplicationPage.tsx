import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useApplicationQuery, useReturnApplicationMutation } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { useState } from 'react';
import type { ApplicationView, CertificationPreview } from '../../../wire/billing';
import { stableText } from '../../../core/lists/stableText';
import { Approvals } from '../../ground/approvals/Approvals';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { HistoryLink } from '../../ground/HistoryLink';
import { faultOf } from '../../ground/faults';
import { May, useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { useStanding } from '../../ground/useStanding';
import { Refused, Waiting } from '../../kit/States';
import { ApplicationDraft } from './ApplicationDraft';
import { ApplicationLines } from './ApplicationLines';
import { CertifyForm } from './CertifyForm';
import { ReceiveForm } from './ReceiveForm';
import { UncertifyForm } from './UncertifyForm';
import { SummaryColumn } from './SummaryColumn';

/** One application for payment: a sheet to fill while it is a draft, a posting afterwards. */
export function ApplicationPage() {
  const { number = '', application = '' } = useParams();
  const { asOf } = useAsOf();
  const may = useMay();
  const { data, error, refetch } = useStanding(useApplicationQuery({ job: number, application: Number(application), asOf }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what={`application ${application}`} />;
  return (
    <>
      <Heading view={data} />
      <Reversed view={data} />
      <Approvals kind="uncertify" job={data.job} document={String(data.number)} />
      <Approvals kind="overbilling" job={data.job} document={String(data.number)} />
      {data.above > 0 && <Above view={data} />}
      {data.refused.edit === null && may('apply') ? (
        <ApplicationDraft key={`${data.job}/${data.number}`} view={data} onStale={() => void refetch()} />
      ) : (
        <Settled view={data} />
      )}
    </>
  );
}

function Heading({ view }: { view: ApplicationView }) {
  const withMonth = useWithMonth();
  const { exact } = useCurrency();
  const open = view.summary.payable - view.received;
  const words = {
    draft: 'Draft',
    submitted: view.certifiedLater
      ? `Submitted; certified ${displayDate(view.certifiedLater)}, after the month shown`
      : 'Submitted, awaiting certification',
    certified: `Certified ${displayDate(view.certifiedOn)}`,
  }[view.status];
  return (
    <div className="mb-2 flex items-baseline gap-4">
      <h2>Application {view.number}</h2>
      <span>valuation date {displayDate(view.dated)}</span>
      <span className="note">
        {words}
        {view.reference && ` · ${view.reference}`}
      </span>
      {view.status === 'certified' &&
        (open === 0 ? (
          <span className="note">paid in full</span>
        ) : (
          <span>
            {exact(open)} outstanding, due {displayDate(view.dueOn)}
          </span>
        ))}
      <span className="ml-auto flex gap-3">
        {view.number > 1 && (
          <Link rel="prev" to={withMonth(`/jobs/${encodeURIComponent(view.job)}/billing/${view.number - 1}`)}>
            <ChevronLeft className="inline align-[-2px]" size={14} aria-hidden="true" /> Application {view.number - 1}
          </Link>
        )}
        {view.hasNext && (
          <Link rel="next" to={withMonth(`/jobs/${encodeURIComponent(view.job)}/billing/${view.number + 1}`)}>
            Application {view.number + 1} <ChevronRight className="inline align-[-2px]" size={14} aria-hidden="true" />
          </Link>
        )}
        <HistoryLink subject={`${view.job}/${view.number}`} about="application" />
        <May do="export:applicationPdf">
          <a href={hrefOf(CALLS.applicationPdf, { job: view.job, application: view.number })} target="_blank" rel="noreferrer">
            Print, PDF
          </a>
          {new Set(view.lines.map((it) => it.section)).size > 1 && (
            <a
              href={hrefOf(CALLS.applicationPdf, { job: view.job, application: view.number, by: 'section' })}
              target="_blank"
              rel="noreferrer"
            >
              by section
            </a>
          )}
        </May>
      </span>
    </div>
  );
}

/** What was certified before, and why not any more. */
function Reversed({ view }: { view: ApplicationView }) {
  const withMonth = useWithMonth();
  return view.reversed.map((it) => (
    <p key={it.postingId} className="note m-0 mb-2">
      Certified {displayDate(it.certifiedOn)} and <Link to={withMonth(`/ledger/postings/${it.postingId}`)}>reversed</Link>:{' '}
      {it.reason}
    </p>
  ));
}

/** Why one that is not certified waits: its job takes no bills now, say. */
function Waits({ view }: { view: ApplicationView }) {
  const reason = view.status === 'certified' || view.certifiedLater ? null : view.refused[NEXT[view.status]];
  return reason && <p className="note mt-3">{reason}.</p>;
}

const NEXT = { draft: 'edit', submitted: 'certify' } as const;

/** The way back to draft for whoever applies and does not certify. */
function Return({ view }: { view: ApplicationView }) {
  const [returnToDraft, { isLoading }] = useReturnApplicationMutation();
  const { refused, attempt } = useAttempt();
  const back = () => returnToDraft({ job: view.job, application: view.number }).unwrap();
  return (
    <p className="mt-5">
      <button
        type="button"
        className="button"
        disabled={isLoading}
        onClick={() => void attempt(back, `Application ${view.number} is a draft again`)}
      >
        Return to draft
      </button>
      {refused && <Refused message={refused.message} />}
    </p>
  );
}

/** What somebody with the right said about its scheduled values. */
function Above({ view }: { view: ApplicationView }) {
  const { exact } = useCurrency();
  return (
    <p className="note m-0 mb-2">
      May pass scheduled values by {exact(view.above)} in all: {view.aboveReason}
    </p>
  );
}

function Settled({ view }: { view: ApplicationView }) {
  const withMonth = useWithMonth();
  const { show } = useCurrency();
  const may = useMay();
  const [preview, setPreview] = useState<CertificationPreview | null>(null);
  // What was shown before it was certified is not shown for what is.
  const certifies = view.refused.certify === null && may('certify');
  const shown = certifies ? preview : null;
  return (
    <div className="grid gap-6 grid-cols-[minmax(0,1fr)_280px] max-[1150px]:grid-cols-1">
      <div>
        <ApplicationLines view={view} />
        <Waits view={view} />
        {view.refused.return === null && may('apply') && !may('certify') && <Return view={view} />}
        {certifies && <CertifyForm view={view} onPreview={setPreview} />}
        {view.status === 'certified' && view.refused.receive === null && view.receivable !== 0 && may('receive') && (
          <ReceiveForm job={view.job} invoice={String(view.number)} open={view.receivable} />
        )}
        {may('certify') && <UncertifyForm key={`${view.number} ${view.status}`} view={view} />}
        {view.receipts.length > 0 && (
          <table className="ledger mt-4">
            <caption className="pb-1 text-left">
              <h3>Received</h3>
            </caption>
            <thead>
              <tr>
                <th>Date</th>
                <th>Reference</th>
                <th className="num">Amount</th>
                <th>Posting</th>
              </tr>
            </thead>
            <tbody>
              {view.receipts.map((it) => (
                <tr key={it.postingId}>
                  <td>{displayDate(it.dated)}</td>
                  <td>{it.reference}</td>
                  <td className="num">{show(it.amount)}</td>
                  <td>
                    <Link to={withMonth(`/ledger/postings/${it.postingId}`)}>{it.postingId}</Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      <SummaryColumn
        view={view}
        summary={shown?.summary ?? view.summary}
        worked={shown === null || stableText(shown.summary) === stableText(view.summary)}
        journal={shown?.journal}
      />
    </div>
  );
}
