import { faultsUnder } from '../../../kit/typed/codecs';
import { present } from '../../../../core/errors/known';
import {
  useCreateJobMutation,
  useJobBeginningQuery,
  useJobListQuery,
  useListsQuery,
  useSessionQuery,
} from '../../../ground/api/api';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from '../../../kit/toast';
import { nextJobNumber } from '../../../../core/jobs/jobNumber';
import type { Lists } from '../../../../wire/company';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { useAttempt } from '../../../ground/useAttempt';
import { isFilled } from '../../../kit/grid/filledRow';
import { day } from '../../../kit/typed/codecs';
import { Fold } from '../../../kit/Fold';
import { DraftNotes } from '../../../kit/draft/DraftNotes';
import { Refused, Waiting } from '../../../kit/States';
import { SureButton } from '../../../kit/SureButton';
import { BeginFrom } from './BeginFrom';
import type { JobForm, ReadJob } from './readJob';
import { beginningAsTyped } from './beginJob';
import { factsInWords, FirstFacts, MoreFacts } from './JobFacts';
import { BudgetGrid, SovGrid } from './JobGrids';
import { NewCodes, useAddingCodes } from '../../../ground/costCodes/NewCodes';
import { NEW_JOB, NEW_TENDER } from '../../../ground/BegunDraft';
import { useBeginning } from './useBeginning';
import { useJobForm } from './useJobForm';

const EMPTY: JobForm = { facts: {}, sov: [], budget: [] };

/** Sets up a job: number, name and client; the rest when it is known. What is typed stays in this browser until it is sent. */
export function NewJobPage() {
  return <NewJob tender={false} />;
}

/** The same of a tender, which is priced by its estimates. */
export function NewTenderPage() {
  return <NewJob tender />;
}

function NewJob({ tender }: { tender: boolean }) {
  const { asOf, month, entryDay } = useAsOf();
  const { data: usual } = useJobBeginningQuery(OF_NOTHING);
  const [params] = useSearchParams();
  const draft = params.get('draft');
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf });
  const { data: jobs } = useJobListQuery({ asOf });
  if (!session || !lists || !jobs || !usual) return <Waiting what="what a job is made of" />;
  const stored = jobs.drafts.find((it) => String(it.id) === draft)?.content as unknown as JobForm | undefined;
  const proposed: JobForm = {
    ...EMPTY,
    facts: {
      number: nextJobNumber(
        present(session.company).jobNumberPattern,
        lists.jobs.map((it) => it.number),
        Number(month.slice(0, 4)),
      ),
      status: tender ? 'tender' : 'awarded',
      awardedOn: tender ? '' : day(month).format(entryDay),
      ...beginningAsTyped(usual),
    },
  };
  return <JobForms start={stored ?? proposed} draftId={stored ? Number(draft) : null} lists={lists} tender={tender} />;
}

interface FormsProps {
  start: JobForm;
  draftId: number | null;
  lists: Lists;
  tender: boolean;
}

const OF_NOTHING = { client: '', kind: '' };

function JobForms({ start, draftId, lists, tender }: FormsProps) {
  const { exact, code } = useCurrency();
  const name = tender ? NEW_TENDER : NEW_JOB;
  const job = useJobForm({
    start,
    lists,
    // A number that somebody else took meanwhile is not held to, where nobody typed it.
    draft: draftId === null ? { name, seen: start.facts.number ?? '' } : { name: `${name} ${draftId}`, seen: '' },
  });
  const { form, setForm, facts, codecs, read, draft, typed } = job;
  const beginning = useBeginning(facts, form, setForm);
  const [asked, setAsked] = useState(false);
  const { create, busy, refused } = useCreate(draftId, tender, draft.forget);
  const addingCodes = useAddingCodes();
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
        <h1>{tender ? 'New tender' : 'New job'}</h1>
        <BeginFrom lists={lists} form={form} setForm={setForm} />
        {typed ? (
          <SureButton onSure={draft.discard}>Discard what was typed</SureButton>
        ) : (
          <span className="note text-[12.5px]">What you type stays in this browser until it is set up.</span>
        )}
      </div>
      <DraftNotes notice={draft.notice} />
      <FirstFacts form={facts} lists={lists} tender={tender} />
      <Fold
        title="Dates, people, retention and terms"
        says={factsInWords(facts.text, tender, beginning)}
        opened={asked && [...read.faults.keys()].some((at) => at.startsWith('facts.') && !IN_SIGHT.has(at))}
      >
        <MoreFacts form={facts} lists={lists} tender={tender} />
      </Fold>
      <Fold
        title="Schedule of values and budget"
        says={gridsInWords(form, tender, (cents) => `${exact(cents)} ${code}`, read)}
        opened={form.sov.some(isFilled) || form.budget.some(isFilled)}
      >
        <SovGrid form={form} setForm={setForm} codecs={codecs} faults={part('sov.')}>
          {exact(read.sovTotal)} of {exact(target)} {code}; difference{' '}
          <b className={target === read.sovTotal ? 'good' : 'loss'}>{exact(target - read.sovTotal)}</b>
        </SovGrid>
        <BudgetGrid form={form} setForm={setForm} codecs={codecs} faults={part('budget.')} lists={lists}>
          {exact(read.budgetTotal)} {code}; expected profit{' '}
          <b className={target < read.budgetTotal ? 'loss' : ''}>{exact(target - read.budgetTotal)}</b>
        </BudgetGrid>
        <NewCodes codes={job.unknownCodes} />
      </Fold>
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
          Set up {tender ? 'tender' : 'job'} {form.facts.number}
          {target !== 0 && `, ${exact(target)}`}
        </button>
      </div>
    </div>
  );
}

/** Sets the job up from what was read; a job that is not whole is not sent. */
function useCreate(draftId: number | null, tender: boolean, forget: () => void) {
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
      toast(`${tender ? 'Tender' : 'Job'} ${number} is set up`);
      void navigate(withMonth(`/jobs/${encodeURIComponent(number)}`));
    });
  };
  return { create, busy, refused };
}

/** Facts that are in sight whatever is folded. */
const IN_SIGHT: ReadonlySet<string> = new Set(['facts.number', 'facts.name', 'facts.client', 'facts.kind']);

/** What schedule and budget come to, or when they are needed. */
function gridsInWords({ sov, budget }: JobForm, tender: boolean, amount: (cents: number) => string, read: ReadJob): string {
  if (sov.some(isFilled) || budget.some(isFilled))
    return `${amount(read.sovTotal)} scheduled, ${amount(read.budgetTotal)} budgeted.`;
  return tender
    ? 'Not needed: a tender is priced by its estimates.'
    : 'Not needed yet: hours and cost can be entered without; an application needs the schedule. Both take a block pasted from a spreadsheet.';
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
