import { useStanding } from '../../ground/useStanding';
import { SureButton } from '../../kit/SureButton';
import { useQuotationQuery } from '../../ground/api/api';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Offers, DocumentDownloads, SendDocument } from '../../ground/offers/Offers';
import { ClientDocumentSheet } from '../../ground/offers/ClientDocumentSheet';
import { Refused, Waiting } from '../../kit/States';
import { StableForm } from '../../kit/StableForm';
import { QuotationFields } from './QuotationFields';
import { useQuotationDraft, type DraftSource } from './useQuotationDraft';

/** A quotation: typed on the left and read as the client reads it on the right; once sent, what came back. */
export function QuotationPage() {
  const { number: job = '', quotation = '' } = useParams();
  const {
    data: view,
    error,
    refetch,
  } = useStanding(useQuotationQuery({ job, quotation: Number(quotation) }, { refetchOnMountOrArgChange: true }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!view) return <Waiting what={`quotation ${quotation}`} />;
  const of = { job, kind: 'quotations' as const, number: quotation };
  return (
    <div className="grid grid-cols-2 gap-8">
      {view.status === 'draft' ? (
        <StableForm of={view} stamp={view.version}>
          {(opened, onTyped) => <Draft job={job} view={opened} onTyped={onTyped} />}
        </StableForm>
      ) : (
        <div>
          <div className="mb-3 flex items-center justify-between">
            <h2>
              Quotation {view.number}, {view.status === 'sent' ? 'issued' : view.status}{' '}
              {displayDate(view.status === 'sent' ? view.sentOn : view.answeredOn)}
            </h2>
            <DocumentDownloads of={of} />
          </div>
          <Offers offers={view.offers} />
          {view.status === 'accepted' && view.jobStatus === 'tender' && <AwardLink job={job} estimate={view.estimate} />}
        </div>
      )}
      <ClientDocumentSheet document={view.document} />
    </div>
  );
}

function AwardLink({ job, estimate }: { job: string; estimate: number }) {
  const withMonth = useWithMonth();
  return (
    <Link className="button main" to={withMonth(`/jobs/${encodeURIComponent(job)}/estimates/${estimate}/award`)}>
      Award the job from it …
    </Link>
  );
}

function Draft(source: DraftSource) {
  const { job, view } = source;
  const { exact } = useCurrency();
  const draft = useQuotationDraft(source);
  const { changed, refused, saveDraft } = draft;
  return (
    <div>
      <div className="mb-3 flex items-center justify-between">
        <h2>Quotation {view.number}, draft</h2>
        <DocumentDownloads of={{ job, kind: 'quotations', number: String(view.number) }} />
      </div>
      <QuotationFields job={job} draft={draft} />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className={`button ${changed ? 'main' : ''}`}
          disabled={!changed || draft.saving}
          onClick={() => void saveDraft()}
        >
          {changed ? 'Save and preview' : 'Saved'}
        </button>
        <SureButton onSure={() => void draft.deleteDraft()}>Delete</SureButton>
        {view.difference !== 0 && <span className="fault">The payments leave {exact(view.difference)} of the price</span>}
      </div>
      {refused && <Refused message={refused.message} />}
      <Sending job={job} view={view} before={async () => !changed || saveDraft()} />
    </div>
  );
}

/** Sends the quotation, as long as the work is a tender. */
function Sending({ job, view, before }: Omit<DraftSource, 'onTyped'> & { before: () => Promise<boolean> }) {
  const { exact } = useCurrency();
  if (view.jobStatus !== 'tender') return <p className="note mt-5">{view.refused.send}.</p>;
  return (
    <>
      <h2 className="mb-2 mt-5">Issue it to the client</h2>
      <SendDocument
        key={view.email}
        of={{ job, kind: 'quotations', number: String(view.number) }}
        to={view.email}
        subject={`Quotation ${view.number}: ${view.document.job.name}`}
        label={`Issue quotation ${view.number}, ${exact(view.document.total)}`}
        before={before}
      />
      <p className="note text-[12.5px]">Once it is sent, it and estimate {view.estimate} are frozen.</p>
    </>
  );
}
