import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { Lists } from '../../../../wire/company';
import type { JobSetup } from '../../../../wire/jobs';
import { useCorrectSetupMutation, useJobSetupQuery, useListsQuery } from '../../../ground/api/api';
import { useAsOf, useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { useAttempt } from '../../../ground/useAttempt';
import { useStanding } from '../../../ground/useStanding';
import { Field } from '../../../kit/Field';
import { Refused, Waiting } from '../../../kit/States';
import { DraftNotes } from '../../../kit/draft/DraftNotes';
import { SureButton } from '../../../kit/SureButton';
import { useUnsaved } from '../../../kit/unsaved';
import { faultsUnder } from '../../../kit/typed/codecs';
import { copyInto } from './beginJob';
import { BudgetGrid, SovGrid } from './JobGrids';
import { NewCodes } from '../../../ground/costCodes/NewCodes';
import type { JobForm } from './readJob';
import { useJobForm } from './useJobForm';

/** Corrects the original schedule of values and budget of a job nothing rests on yet. */
export function CorrectSetupPage() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const { data, error, refetch } = useStanding(useJobSetupQuery({ job }, { refetchOnMountOrArgChange: true }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data || !lists) return <Waiting what="schedule and budget" />;
  if (data.frozen) return <p>{data.frozen}.</p>;
  return <CorrectSetup job={job} setup={data} lists={lists} onStale={() => void refetch()} />;
}

/** What the form of a job needs beside schedule and budget: nothing of it is changed here. */
const FACTS = { number: '-', name: '-', status: 'tender', stepApplies: 'all', revenueMethod: 'cost-to-cost' };

/** What the trail says of a schedule that is entered after the job. */
const FIRST = 'First entered';

interface CorrectProps {
  job: string;
  setup: JobSetup;
  lists: Lists;
  /** Reads it again, where somebody saved another version. */
  onStale: () => void;
}

function CorrectSetup({ job, setup, lists, onStale }: CorrectProps) {
  const { exact, code, digits } = useCurrency();
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const start = useMemo((): JobForm => {
    const empty: JobForm = { facts: { ...FACTS, client: lists.clients[0]?.code ?? '' }, sov: [], budget: [] };
    return copyInto(empty, setup, new Set(['sov', 'budget']), true, digits);
  }, [setup, lists, digits]);
  const { form, setForm, codecs, read, unknownCodes, draft, typed } = useJobForm({
    start,
    lists,
    draft: { name: `setup ${job}`, seen: setup.seen },
  });
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const [correct, { isLoading }] = useCorrectSetupMutation();
  const { refused, setRefused, attempt } = useAttempt();
  useUnsaved(reason !== '');
  // A schedule entered for the first time corrects nothing.
  const first = setup.sov.length === 0;
  const said = first ? FIRST : reason.trim();
  const missing = asked && reason.trim() === '' ? 'Enter a reason; it stands in the audit trail' : undefined;
  const save = async () => {
    setAsked(true);
    setRefused(null);
    if (!read.input || said === '') return;
    const { sov, budget, contractSum } = read.input;
    const body = { seen: setup.seen, reason: said, contractSum, sov, budget };
    const done = first ? 'Schedule and budget saved' : 'Schedule and budget corrected';
    if (!(await attempt(() => correct({ job, body }).unwrap(), done))) return onStale();
    setReason('');
    draft.forget();
    void navigate(withMonth(`/jobs/${encodeURIComponent(job)}/contract`));
  };
  return (
    <>
      <p className="note m-0">
        The original schedule and budget can be entered and corrected until the job is applied for, a change order is approved, or
        budget is transferred. Each correction is recorded.
      </p>
      <DraftNotes notice={draft.notice} />
      <SovGrid form={form} setForm={setForm} codecs={codecs} faults={faultsUnder(read.faults, 'sov.')}>
        Contract sum <b>{exact(read.sovTotal)}</b> {code}
      </SovGrid>
      <BudgetGrid form={form} setForm={setForm} codecs={codecs} faults={faultsUnder(read.faults, 'budget.')} lists={lists}>
        {exact(read.budgetTotal)} {code}; expected profit{' '}
        <b className={read.sovTotal < read.budgetTotal ? 'loss' : ''}>{exact(read.sovTotal - read.budgetTotal)}</b>
      </BudgetGrid>
      <NewCodes codes={unknownCodes} />
      {refused && <Refused message={refused.message} />}
      {asked && !read.input && (
        <Refused
          message={`${read.faults.size} ${read.faults.size === 1 ? 'cell needs' : 'cells need'} attention; go to a cell to see why.`}
        />
      )}
      <div className="mt-4 flex items-start gap-3">
        {!first && (
          <Field label="Reason" fault={missing} className="w-[360px]">
            <input value={reason} onChange={(event) => setReason(event.target.value)} />
          </Field>
        )}
        <button type="button" className="button main mt-[20px]" disabled={!typed || isLoading} onClick={() => void save()}>
          {first ? 'Save schedule and budget' : 'Save the correction'}, {exact(read.sovTotal)}
        </button>
        {typed && (
          <SureButton className="button bare mt-[20px]" onSure={draft.discard}>
            Discard what was typed
          </SureButton>
        )}
      </div>
    </>
  );
}
