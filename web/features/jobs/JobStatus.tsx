import { Popover } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { JOB_STATUSES } from '../../../core/contract/jobStatus';
import type { JobView } from '../../../wire/jobs';
import { useAsOf } from '../../app/asOf';
import { faultOf } from '../../app/faults';
import { Field } from '../../ui/Field';
import { readDate } from '../../ui/readDate';
import { useMoveJobMutation } from './api';

/** Where the job is in its life, and the way on. */
export function JobStatus({ job }: { job: JobView }) {
  const { month, lastDay } = useAsOf();
  const [open, setOpen] = useState(false);
  const next = JOB_STATUSES.slice(JOB_STATUSES.indexOf(job.status as 'tender') + 1);
  const [status, setStatus] = useState<string>(next[0] ?? '');
  const [on, setOn] = useState(lastDay);
  const [fault, setFault] = useState<string>();
  const [move, { isLoading }] = useMoveJobMutation();
  const needsDay = job.status === 'tender' || ((status === 'closing-out' || status === 'closed') && !job.finishedOn);
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const day = needsDay ? readDate(on, month) : null;
    if (needsDay && !day) return setFault('Expected a day such as 30 Apr 2031');
    try {
      await move({ number: job.number, status, on: day }).unwrap();
      toast(`Job ${job.number} is ${status}`);
      setOpen(false);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  if (next.length === 0) return <span className="note whitespace-nowrap">{job.status}</span>;
  return (
    <Popover.Root
      open={open}
      onOpenChange={(value) => {
        setOpen(value);
        setStatus(next[0]!);
        setFault(undefined);
      }}
    >
      <Popover.Trigger className="press">
        {job.status}
        {job.locked ? ', locked' : ''} <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[280px] border p-4 shadow-xl"
          style={{ background: 'var(--sheet)', borderColor: 'var(--rule)' }}
        >
          <form onSubmit={submit} className="flex flex-col gap-3">
            <Field label="Move the job on to">
              <select value={status} onChange={(event) => setStatus(event.target.value)}>
                {next.map((it) => (
                  <option key={it}>{it}</option>
                ))}
              </select>
            </Field>
            {needsDay && (
              <Field label={job.status === 'tender' ? 'Awarded on' : 'Finished on'}>
                <input value={on} onChange={(event) => setOn(event.target.value)} />
              </Field>
            )}
            {fault && (
              <p role="alert" className="fault m-0">
                {fault}
              </p>
            )}
            <button className="press main self-start" disabled={isLoading}>
              Make it {status}
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
