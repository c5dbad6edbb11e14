import { SureButton } from '../../kit/SureButton';
import type { SentOf } from '../../../wire/call';
import type { CALLS } from '../../../wire/calls';
import { useDeleteJobMutation, useLockJobMutation, useMoveJobMutation } from '../../ground/api/api';
import { Pop } from '../../kit/Pop';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { JOB_STATUSES } from '../../../core/jobs/jobStatus';
import type { JobView } from '../../../wire/jobs';
import { useAsOf } from '../../ground/asOf';
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
  const next = JOB_STATUSES.slice(JOB_STATUSES.indexOf(job.status as 'tender') + 1) as MoveTo[];
  const [status, setStatus] = useState<MoveTo | ''>(next[0] ?? '');
  const [on, setOn] = useState(displayDate(entryDay));
  const [fault, setFault] = useState<string>();
  const [move, { isLoading }] = useMoveJobMutation();
  const needsDay = job.status === 'tender' || ((status === 'closing-out' || status === 'closed') && !job.finishedOn);
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const day = needsDay ? readDate(on, month) : null;
    if (status === '') return;
    if (needsDay && !day) return setFault('Enter a date, e.g. 30 Apr 2031');
    try {
      await move({ job: job.number, body: { status, on: day } }).unwrap();
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
          {job.locked ? `${job.status}, locked` : job.status} <ChevronDown size={14} aria-hidden="true" />
        </>
      }
      align="end"
      className="w-[280px] p-4"
      open={open}
      onOpen={(value) => {
        setOpen(value);
        setStatus(next[0] ?? '');
        setFault(undefined);
      }}
    >
      {next.length > 0 && (
        <form onSubmit={submit} className="flex flex-col gap-3">
          <Field label="Move the job on to">
            <Choice value={status} options={next} onChange={setStatus} />
          </Field>
          {needsDay && (
            <Field label={job.status === 'tender' ? 'Awarded on' : 'Finished on'}>
              <DayInput value={on} month={month} onText={setOn} />
            </Field>
          )}
          {fault && (
            <p role="alert" className="fault m-0">
              {fault}
            </p>
          )}
          <button className="button main self-start" disabled={isLoading}>
            Move to {status}
          </button>
        </form>
      )}
      <Keeping job={job} ruled={next.length > 0} onDone={() => setOpen(false)} />
    </Pop>
  );
}

/** Locking, and taking away a tender nothing happened on. */
function Keeping({ job, ruled, onDone }: { job: JobView; ruled: boolean; onDone: () => void }) {
  const navigate = useNavigate();
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState<string>();
  const [sure, setSure] = useState(false);
  const [lock] = useLockJobMutation();
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
      <Field label={`Reason for ${verb.toLowerCase()}ing`} fault={fault}>
        <input value={reason} onChange={(event) => setReason(event.target.value)} />
      </Field>
      {sure && (
        <p className="fault m-0">
          Tender {job.number} goes with its schedule, budget, draft estimates and quotations. It cannot be brought back.
        </p>
      )}
      <div className="flex gap-2">
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
        {job.status === 'tender' && (
          <SureButton
            onAsked={setSure}
            onSure={() =>
              void attempt(async () => {
                await remove({ job: job.number }).unwrap();
                void navigate('/jobs');
              }, `Tender ${job.number} is taken away`)
            }
          >
            Delete tender
          </SureButton>
        )}
      </div>
    </div>
  );
}
