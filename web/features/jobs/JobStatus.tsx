import { SureButton } from '../../kit/SureButton';
import type { SentOf } from '../../../wire/call';
import type { CALLS } from '../../../wire/calls';
import {
  useDeleteJobMutation,
  useEndTenderMutation,
  useJobFileQuery,
  useLockJobMutation,
  useMoveJobMutation,
  useRestrictJobMutation,
  useSessionQuery,
} from '../../ground/api/api';
import { Pop } from '../../kit/Pop';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { dayOfMove, moveRefusals, movesOpen } from '../../../core/jobs/jobMoves';
import { isEnded } from '../../../core/jobs/jobStatus';
import { messageOf } from '../../../core/refusals/messages';
import type { JobView } from '../../../wire/jobs';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { May, useMay } from '../../ground/person';
import { faultOf } from '../../ground/faults';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import { Choice } from '../../kit/choice/Choice';
import { readDate } from '../../kit/typed/readDate';

/** Where the job is in its life, and the way on. */
type MoveTo = SentOf<typeof CALLS.moveJob>['body']['status'];

export function JobStatus({ job }: { job: JobView }) {
  const { month, entryDay } = useAsOf();
  const [open, setOpen] = useState(false);
  const may = useMay();
  const leads = may('move-jobs');
  const endings: readonly MoveTo[] = ['tender', 'lost', 'withdrawn'];
  // Whoever estimates ends tenders and takes them up again; the rest is for those who lead jobs.
  const { data: session } = useSessionQuery();
  const moving = { ...job, isPosted: job.holds.includes('postings') };
  const next: readonly MoveTo[] = movesOpen(moving, session?.closedTo ?? null).filter(
    (it) => leads || (may('estimate') && endings.includes(job.status as MoveTo) && endings.includes(it)),
  );
  const [status, setStatus] = useState<MoveTo | ''>(next[0] ?? '');
  const [on, setOn] = useState(displayDate(entryDay));
  const [fault, setFault] = useState<string>();
  const [move, { isLoading }] = useMoveJobMutation();
  const [end] = useEndTenderMutation();
  const [reason, setReason] = useState('');
  const [reasonFault, setReasonFault] = useState<string>();
  const ends = isEnded(status);
  const again = isEnded(job.status);
  const day = status === '' ? null : dayOfMove(moving, status);
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const given = day === null ? null : readDate(on, month);
    if (status === '') return;
    if (day !== null && !given) return setFault('Enter a date, e.g. 30 Apr 2031');
    const body = { status, on: given, reason: reason.trim() };
    const refusals = moveRefusals(moving, body).map((it) => ({ at: it.at, message: messageOf(it, String) }));
    setReasonFault(refusals.find((it) => it.at === 'reason')?.message);
    setFault(refusals.find((it) => it.at !== 'reason')?.message);
    if (refusals.length > 0) return;
    try {
      await (leads ? move : end)({ job: job.number, body }).unwrap();
      toast(`Job ${job.number} is ${status}`);
      setOpen(false);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <Pop
      button={
        <>
          {[job.status, job.locked && 'locked', job.restricted && 'restricted'].filter(Boolean).join(', ')}{' '}
          <ChevronDown size={14} aria-hidden="true" />
        </>
      }
      align="end"
      className="w-[280px] p-4"
      open={open}
      onOpen={(value) => {
        setOpen(value);
        setStatus(next[0] ?? '');
        setFault(undefined);
        setReasonFault(undefined);
      }}
    >
      {next.length > 0 && (
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
          <Field label="Move the job on to">
            <Choice value={status} options={next} onChange={setStatus} />
          </Field>
          {day !== null && (
            <Field label={`${day === 'ended' ? status : day} on`.replace(/^./, (it) => it.toUpperCase())}>
              <DayInput value={on} month={month} onText={setOn} />
            </Field>
          )}
          {(ends || again) && (
            <Field label="Reason" {...(reasonFault !== undefined && { fault: reasonFault })}>
              <input value={reason} onChange={(event) => setReason(event.target.value)} />
            </Field>
          )}
          {status === 'on-site' && <MissingForSite job={job.number} />}
          {fault && (
            <p role="alert" className="fault m-0">
              {fault}
            </p>
          )}
          <button className="button main self-start" disabled={isLoading}>
            {again ? 'Take up again as' : 'Move to'} {status}
          </button>
        </form>
      )}
      {(leads || may('manage-jobs')) && <Keeping job={job} ruled={next.length > 0} onDone={() => setOpen(false)} />}
    </Pop>
  );
}

/** What a job lacks that goes on site: a warning, each with the way to it. */
function MissingForSite({ job }: { job: string }) {
  const withMonth = useWithMonth();
  const { data } = useJobFileQuery({ job });
  if (!data || data.missing.length === 0) return null;
  return (
    <div role="status" aria-label="Missing for site">
      <p className="m-0">Missing for site; it can be entered later:</p>
      <ul className="m-0 pl-4">
        {data.missing.map((it) => (
          <li key={it.text}>
            <Link to={withMonth(addressOf(it.to))}>{it.text}</Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A job nothing happened on can be deleted; where something did, the server says what. */
const DELETABLE: readonly string[] = ['tender', 'awarded', 'lost', 'withdrawn', 'cancelled'];

/** Locking, and deleting a job nothing happened on. */
function Keeping({ job, ruled, onDone }: { job: JobView; ruled: boolean; onDone: () => void }) {
  const navigate = useNavigate();
  const leads = useMay()('move-jobs');
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState<string>();
  const [sure, setSure] = useState(false);
  const [lock] = useLockJobMutation();
  const [restrict] = useRestrictJobMutation();
  const [remove] = useDeleteJobMutation();
  const attempt = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      toast(said);
      onDone();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  const verb = job.locked ? 'Unlock' : 'Lock';
  return (
    <div className={`flex flex-col gap-2 ${ruled ? 'mt-4 border-t pt-3' : ''} border-[var(--hair)]`}>
      <May do="move-jobs">
        <Field label="Reason for locking or restricting" fault={fault}>
          <input value={reason} onChange={(event) => setReason(event.target.value)} />
        </Field>
      </May>
      {!leads && fault && (
        <p role="alert" className="fault m-0">
          {fault}
        </p>
      )}
      {sure && (
        <p className="fault m-0">
          This deletes job {job.number} with its schedule, budget, draft estimates and quotations. This cannot be undone.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <May do="move-jobs">
          <button
            type="button"
            className="button"
            disabled={reason.trim() === ''}
            onClick={() =>
              void attempt(
                () => lock({ job: job.number, body: { locked: !job.locked, reason } }).unwrap(),
                `Job ${job.number} is ${job.locked ? 'unlocked' : 'locked: nothing posts to it'}`,
              )
            }
          >
            {verb}
          </button>
          <button
            type="button"
            className="button"
            title="A restricted job takes costs and documents from its team alone"
            disabled={reason.trim() === ''}
            onClick={() =>
              void attempt(
                () => restrict({ job: job.number, body: { restricted: !job.restricted, reason } }).unwrap(),
                job.restricted
                  ? `Job ${job.number} is open to everybody again`
                  : `Job ${job.number} takes costs and documents from its team alone`,
              )
            }
          >
            {job.restricted ? 'Open to everybody' : 'Restrict to its team'}
          </button>
        </May>
        {DELETABLE.includes(job.status) && (
          <SureButton
            onAsked={setSure}
            onSure={() =>
              void attempt(async () => {
                await remove({ job: job.number }).unwrap();
                void navigate('/jobs');
              }, `Job ${job.number} is deleted`)
            }
          >
            Delete job
          </SureButton>
        )}
      </div>
    </div>
  );
}
