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
import { toast } from 'sonner';
import { nextJobNumber } from '../../../../core/jobs/jobNumber';
import { formatPercentShortest } from '../../../../core/money/rate';
import type { Lists } from '../../../../wire/company';
import { useAsOf, useKeepMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { Refused, Waiting } from '../../../kit/States';
import { BeginFrom } from './BeginFrom';
import { readJob, type JobForm } from './readJob';
import { Facts } from './JobFacts';
import { BudgetGrid, SovGrid } from './JobGrids';
import { ADDING_CODES, NewCodes } from './NewCodes';
import { useDraft } from './useDraft';

const EMPTY: JobForm = { facts: {}, sov: [], budget: [] };

/** Sets up a job: its facts, its schedule of values, its budget. As a draft it is saved as it is typed. */
export function NewJobPage() {
  const { month } = useAsOf();
  const [params] = useSearchParams();
  const draft = params.get('draft');
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf: month });
  const { data: jobs } = useJobListQuery({ asOf: month });
  if (!session || !lists || !jobs) return <Waiting what="what a job is made of" />;
  const kept = jobs.drafts.find((it) => String(it.id) === draft)?.content as unknown as JobForm | undefined;
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
  return <JobForms key="form" start={kept ?? proposed} draftId={kept ? Number(draft) : null} lists={lists} />;
}

function JobForms({ start, draftId, lists }: { start: JobForm; draftId: number | null; lists: Lists }) {
  const { month } = useAsOf();
  const currency = useCurrency();
  const { digits, exact, code } = currency;
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const [form, setForm] = useState(start);
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const { id, savedAt, settle } = useDraft(form, start, draftId);
  const [createJob, { isLoading }] = useCreateJobMutation();
  const [, { isLoading: addingCodes }] = useAddCostCodesMutation(ADDING_CODES);
  const context = useMemo(
    () => ({
      digits,
      month,
      clients: new Set(lists.clients.map((it) => it.code)),
      costCodes: new Set(lists.costCodes.map((it) => it.code)),
    }),
    [digits, month, lists],
  );
  const read = useMemo(() => readJob(form, context), [form, context]);
  const setFact = (key: string, value: string) => setForm((before) => ({ ...before, facts: { ...before.facts, [key]: value } }));
  // A cell that is filled and wrong says so at once; what is still missing waits until the job is to be set up.
  const shown = useMemo(() => new Map([...read.faults].filter(([at]) => asked || typedAt(form, at) !== '')), [read, asked, form]);
  const part = (prefix: string) =>
    new Map([...shown].filter(([at]) => at.startsWith(prefix)).map(([at, message]) => [at.slice(prefix.length), message]));
  const target = read.contractSum ?? read.sovTotal;
  const difference = target - read.sovTotal;
  // What holds it up stands for as long as it does: gone once it is mended, or a client just added has come into the list.
  const blockingMessage =
    !asked || read.input
      ? null
      : difference !== 0 && read.faults.size === 0
        ? `The schedule of values is ${exact(Math.abs(difference))} ${difference > 0 ? 'short of' : 'over'} the contract sum. Change a line, or the sum.`
        : `${read.faults.size} ${read.faults.size === 1 ? 'field needs' : 'fields need'} attention; see the notes beside them.`;
  const create = async () => {
    setAsked(true);
    setRefused(null);
    if (!read.input) return;
    try {
      await settle();
      const { number } = await createJob({ body: { ...read.input, draftId: id.current } }).unwrap();
      toast(`Job ${number} is set up`);
      void navigate(keep(`/jobs/${encodeURIComponent(number)}`));
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>New job</h1>
        <BeginFrom lists={lists} form={form} setForm={setForm} />
        <span className="note text-[12.5px]" role="status">
          {savedAt ? `Saved as a draft at ${savedAt}` : 'Saved automatically as a draft'}
        </span>
      </div>
      <Facts facts={form.facts} setFact={setFact} faults={part('facts.')} lists={lists} />
      <div className="mt-5 flex items-end justify-between">
        <h2>Schedule of values</h2>
        <p className="m-0" role="status">
          {exact(read.sovTotal)} of {exact(target)} {code}; difference{' '}
          <b style={{ color: difference === 0 ? 'var(--good)' : 'var(--loss)' }}>{exact(difference)}</b>
        </p>
      </div>
      <SovGrid form={form} setForm={setForm} faults={part('sov.')} lists={lists} />
      <div className="mt-5 flex items-end justify-between">
        <h2>Budget</h2>
        <p className="m-0" role="status">
          {exact(read.budgetTotal)} {code}; expected profit{' '}
          <b style={{ color: target < read.budgetTotal ? 'var(--loss)' : 'inherit' }}>{exact(target - read.budgetTotal)}</b>
        </p>
      </div>
      <BudgetGrid form={form} setForm={setForm} faults={part('budget.')} lists={lists} />
      <NewCodes codes={read.unknownCodes} />
      {(blockingMessage ?? refused?.message) && <Refused message={blockingMessage ?? present(refused).message} />}
      <div className="mt-4 flex items-center gap-3">
        <button type="button" className="button main" disabled={isLoading || addingCodes} onClick={() => void create()}>
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

/** What stands in the cell or field a fault is about. */
function typedAt(form: JobForm, at: string): string {
  const [where, ...rest] = at.split('.');
  const text =
    where === 'facts' ? form.facts[present(rest[0])] : form[where as 'sov' | 'budget'][Number(rest[0])]?.[present(rest[1])];
  return (text ?? '').trim();
}
