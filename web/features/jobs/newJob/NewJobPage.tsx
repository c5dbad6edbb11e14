import { faultsUnder } from '../../../kit/typed/codecs';
import { present } from '../../../../core/errors/known';
import {
  useAddCostCodesMutation,
  useCreateJobMutation,
  useJobListQuery,
  useListsQuery,
  useSessionQuery,
} from '../../../ground/api/api';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from '../../../kit/toast';
import { nextJobNumber } from '../../../../core/jobs/jobNumber';
import { formatPercentShortest } from '../../../../core/money/rate';
import type { Lists } from '../../../../wire/company';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { useAttempt } from '../../../ground/useAttempt';
import { DraftNotes } from '../../../kit/draft/DraftNotes';
import { Refused, Waiting } from '../../../kit/States';
import { SureButton } from '../../../kit/SureButton';
import { BeginFrom } from './BeginFrom';
import type { JobForm, ReadJob } from './readJob';
import { Facts } from './JobFacts';
import { BudgetGrid, SovGrid } from './JobGrids';
import { ADDING_CODES, NewCodes } from '../../../ground/costCodes/NewCodes';
import { NEW_JOB } from './newJobDraft';
import { useJobForm } from './useJobForm';

const EMPTY: JobForm = { facts: {}, sov: [], budget: [] };

/** Sets up a job: its facts, its schedule of values, its budget. What is typed stays in this browser until it is sent. */
export function NewJobPage() {
  const { asOf, month } = useAsOf();
  const [params] = useSearchParams();
  const draft = params.get('draft');
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf });
  const { data: jobs } = useJobListQuery({ asOf });
  if (!session || !lists || !jobs) return <Waiting what="what a job is made of" />;
  const stored = jobs.drafts.find((it) => String(it.id) === draft)?.content as unknown as JobForm | undefined;
  const proposed: JobForm = {
    ...EMPTY,
    facts: {
      number: nextJobNumber(
        present(session.company).jobNumberPattern,
        lists.jobs.map((it) => it.number),
        Number(month.slice(0, 4)),
      ),
      status: 'awarded',
      retention: '5',
      tax: formatPercentShortest(present(session.company).taxRate),
      stepApplies: 'all',
      revenueMethod: 'cost-to-cost',
    },
  };
  return <JobForms start={stored ?? proposed} draftId={stored ? Number(draft) : null} lists={lists} />;
}

interface FormsProps {
  start: JobForm;
  draftId: number | null;
  lists: Lists;
}

function JobForms({ start, draftId, lists }: FormsProps) {
  const { exact, code } = useCurrency();
  const job = useJobForm({
    start,
    lists,
    // A number that somebody else took meanwhile is not held to, where nobody typed it.
    draft: draftId === null ? { name: NEW_JOB, seen: start.facts.number ?? '' } : { name: `${NEW_JOB} ${draftId}`, seen: '' },
  });
  const { form, setForm, facts, codecs, read, draft, typed } = job;
  const [asked, setAsked] = useState(false);
  const { create, busy, refused } = useCreate(draftId, draft.forget);
  const [, { isLoading: addingCodes }] = useAddCostCodesMutation(ADDING_CODES);
  // A cell that is filled and wrong says so at once; what is still missing waits until the job is to be set up.
  const shown = useMemo(() => new Map([...read.faults].filter(([at]) => asked || typedAt(form, at) !== '')), [read, asked, form]);
  const part = (under: string) => faultsUnder(shown, under);
  const target = read.contractSum ?? read.sovTotal;
  // What holds it up stands for as long as it does: gone once it is mended, or a client just added has come into the list.
  const blocking = asked && !read.input ? blockingText(read, target, exact) : null;
  const message = blocking ?? refused?.message;
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>New job</h1>
        <BeginFrom lists={lists} form={form} setForm={setForm} />
        {typed ? (
          <SureButton onSure={draft.discard}>Discard what was typed</SureButton>
        ) : (
          <span className="note text-[12.5px]">What you type stays in this browser until the job is set up.</span>
        )}
      </div>
      <DraftNotes notice={draft.notice} />
      <Facts form={facts} lists={lists} />
      <SovGrid form={form} setForm={setForm} codecs={codecs} faults={part('sov.')}>
        {exact(read.sovTotal)} of {exact(target)} {code}; difference{' '}
        <b className={target === read.sovTotal ? 'good' : 'loss'}>{exact(target - read.sovTotal)}</b>
      </SovGrid>
      <BudgetGrid form={form} setForm={setForm} codecs={codecs} faults={part('budget.')} lists={lists}>
        {exact(read.budgetTotal)} {code}; expected profit{' '}
        <b className={target < read.budgetTotal ? 'loss' : ''}>{exact(target - read.budgetTotal)}</b>
      </BudgetGrid>
      <NewCodes codes={job.unknownCodes} />
      {message && <Refused message={message} />}
      <div className="mt-4 flex items-center gap-3">
        <button
          type="button"
          className="button main"
          disabled={busy || addingCodes}
          onClick={() => {
            setAsked(true);
            facts.show(read.faults, 'facts.');
            void create(read.input);
          }}
        >
          Set up job {form.facts.number}
          {target !== 0 && `, ${exact(target)}`}
        </button>
        <span className="note">
          Both grids take a block pasted from a spreadsheet. The schedule must come to the contract sum; the budget may follow by
          import.
        </span>
      </div>
    </div>
  );
}

/** Sets the job up from what was read; a job that is not whole is not sent. */
function useCreate(draftId: number | null, forget: () => void) {
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const { refused, setRefused, attempt } = useAttempt();
  const [createJob, { isLoading: busy }] = useCreateJobMutation();
  const create = async (input: ReadJob['input']) => {
    setRefused(null);
    if (!input) return;
    await attempt(async () => {
      const { number } = await createJob({ body: { ...input, draftId } }).unwrap();
      forget();
      toast(`Job ${number} is set up`);
      void navigate(withMonth(`/jobs/${encodeURIComponent(number)}`));
    });
  };
  return { create, busy, refused };
}

function blockingText(read: ReadJob, target: number, exact: (cents: number) => string): string {
  const difference = target - read.sovTotal;
  if (difference !== 0 && read.faults.size === 0)
    return `The schedule of values is ${exact(Math.abs(difference))} ${difference > 0 ? 'short of' : 'over'} the contract sum. Change a line, or the sum.`;
  return `${read.faults.size} ${read.faults.size === 1 ? 'field needs' : 'fields need'} attention; go to a field to see why.`;
}

/** What stands in the cell of a grid a fault is about. */
function typedAt(form: JobForm, at: string): string {
  const [where, row, column] = at.split('.');
  if (where !== 'sov' && where !== 'budget') return '';
  return (form[where][Number(row)]?.[present(column)] ?? '').trim();
}
