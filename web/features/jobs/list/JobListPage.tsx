import { useStanding } from '../../../ground/useStanding';
import { SureButton } from '../../../kit/SureButton';
import { displayMoment } from '../../../kit/displayMoment';
import { useDeleteDraftMutation, useJobListQuery } from '../../../ground/api/api';
import { Link } from 'react-router';
import { BegunDraft, NEW_JOB } from '../../../ground/BegunDraft';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { faultOf } from '../../../ground/faults';
import { May, useMay, usePerson } from '../../../ground/person';
import { WaitingLine } from '../../../ground/WaitingLine';
import { useAttempt } from '../../../ground/useAttempt';
import { Empty, Refused, Waiting } from '../../../kit/States';
import { JobTable } from './JobTable';

/** All jobs, one a line, with their measure: made to find the one that went wrong. */
export function JobListPage() {
  const { asOf } = useAsOf();
  const { data, error, refetch } = useStanding(useJobListQuery({ asOf }, { refetchOnMountOrArgChange: true }));
  const withMonth = useWithMonth();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the jobs" />;
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>Jobs</h1>
        <May do="manage-jobs">
          <Link className="button main" to={withMonth('/jobs/new')}>
            New job
          </Link>
        </May>
      </div>
      <WaitingLine />
      <BegunDraft draft={NEW_JOB} to="/jobs/new" one="job" />
      <Drafts drafts={data.drafts} />
      {data.jobs.length === 0 ? <NoJob /> : <JobTable jobs={data.jobs} />}
    </div>
  );
}

/** Nothing to see: there is no job, or whoever looks is on the team of none. */
function NoJob() {
  const withMonth = useWithMonth();
  const person = usePerson();
  const seesAll = useMay()('read-books') || person?.role === 'estimator';
  return (
    <Empty title={seesAll ? 'No job yet' : 'You are on no job’s team yet'}>
      {!seesAll && (
        <p className="note m-0 basis-full">
          Ask the accountant to name you on your jobs, as manager or in the team; they are here then.
        </p>
      )}
      <May do="manage-jobs">
        <Link className="button main" to={withMonth('/jobs/new')}>
          {seesAll ? 'Type or paste the first job' : 'Set up a job'}
        </Link>
      </May>
      <May do="import-books">
        <Link className="button" to={withMonth('/set-up')}>
          Import a book
        </Link>
      </May>
    </Empty>
  );
}

/** Those an earlier version saved on the server. */
function Drafts({ drafts }: { drafts: readonly { id: number; content: Record<string, unknown>; savedAt: string }[] }) {
  const withMonth = useWithMonth();
  const [deleteDraft] = useDeleteDraftMutation();
  const { refused, attempt } = useAttempt();
  if (drafts.length === 0) return null;
  return (
    <ul className="sheet mb-3 list-none px-3 py-1">
      {drafts.map((draft) => {
        const facts = (draft.content.facts ?? {}) as Record<string, string>;
        return (
          <li key={draft.id} className="flex items-center gap-3">
            <span className="note">Drafts:</span>
            <Link to={withMonth(`/jobs/new?draft=${draft.id}`)}>
              {[facts.number, facts.name || 'job without a name'].filter(Boolean).join(' ')}
            </Link>
            <span className="note text-[12.5px]">saved {displayMoment(draft.savedAt)}</span>
            <SureButton onSure={() => void attempt(() => deleteDraft({ id: draft.id }).unwrap())}>Delete</SureButton>
          </li>
        );
      })}
      {refused && (
        <li>
          <Refused message={refused.message} />
        </li>
      )}
    </ul>
  );
}
