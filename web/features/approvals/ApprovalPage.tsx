import { useMemo, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from '../../kit/toast';
import { APPROVALS } from '../../../core/approvals/approvals';
import { withDisplayDates } from '../../../core/calendar/displayDate';
import type { ApprovalRow, SentAgain } from '../../../wire/approvals';
import {
  useAcknowledgeApprovalMutation,
  useApprovalQuery,
  useDecideApprovalMutation,
  useSendAgainMutation,
  useWithdrawApprovalMutation,
} from '../../ground/api/api';
import { stateOf } from '../../ground/approvals/Approvals';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { displayMoment } from '../../kit/displayMoment';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { PageHead } from '../../kit/PageHead';
import { Refused } from '../../kit/States';
import { words } from '../../kit/typed/codecs';

/** One approval: what is to be done and why; given or refused by whoever may, carried out by whoever asked. */
export function ApprovalPage() {
  const { approval = '' } = useParams();
  const data = useApprovalQuery({ id: Number(approval) }, { refetchOnMountOrArgChange: true });
  return (
    <div className="page max-w-[860px]">
      <Loaded of={data} what={`approval ${approval}`}>
        {(it) => (
          <>
            <PageHead title={`Approval for ${APPROVALS[it.kind].act}`}>
              <HistoryLink subject={`approval ${it.id}`} about="approval" />
            </PageHead>
            <Facts it={it} />
            {it.can.decide && <Decide key={it.id} id={it.id} />}
            {it.request && <CarryOut it={it} request={it.request} />}
            {it.can.acknowledge && <Acknowledge id={it.id} />}
            {it.can.withdraw && <Withdraw id={it.id} />}
          </>
        )}
      </Loaded>
    </div>
  );
}

function Facts({ it }: { it: ApprovalRow }) {
  const to = pathOf(it);
  const withMonth = useWithMonth();
  const { exact, code } = useCurrency();
  return (
    <>
      <p className="m-0 mb-3 text-[22px]">
        {exact(it.amount)}{' '}
        <span className="note text-[13px]">
          {code}, {APPROVALS[it.kind].measured}
        </span>
      </p>
      <dl className="mb-4 grid grid-cols-[auto_minmax(0,1fr)] gap-x-8 gap-y-1">
        {to !== null && (
          <Fact label={it.job === null ? 'Where' : 'Job'}>
            <Link to={withMonth(to)}>{it.job === null ? whereOf(it) : `${it.job} ${it.jobName ?? ''}`}</Link>
          </Fact>
        )}
        {it.facts.map(([label, text], i) => (
          <Fact key={i} label={label}>
            {withDisplayDates(text)}
          </Fact>
        ))}
        <Fact label="Asked for by">
          {it.askedBy}, {displayMoment(it.askedAt)}: {it.reason}
        </Fact>
      </dl>
      <p className="mb-4">
        <b>{stateOf(it).replace(/^./, (letter) => letter.toUpperCase())}</b>
      </p>
    </>
  );
}

function Fact({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="note">{label}</dt>
      <dd className="m-0">{children}</dd>
    </>
  );
}

/** Where its document stands, its job, or where the act is done; of several jobs, null. */
function pathOf({ kind, job, document }: ApprovalRow): string | null {
  if (kind === 'approve-time' || kind === 'post-time')
    return document === '' ? '/costs/time/post' : addressOf({ place: 'week-sheet', document });
  if (kind === 'hand-over') return '/costs/payroll';
  if (job === null) return null;
  const at = `/jobs/${encodeURIComponent(job)}`;
  const name = encodeURIComponent(document);
  return {
    'change-order': `${at}/changes/${name}`,
    transfer: `${at}/budget`,
    uncertify: `${at}/billing/${name}`,
    overbilling: `${at}/billing/${name}`,
    'past-reversal': `${at}/postings`,
  }[kind];
}

/** What an act of several jobs is done on. */
function whereOf({ kind, document }: ApprovalRow): string {
  if (kind === 'hand-over') return 'Payroll hand-over';
  return document === '' ? 'Post time' : `Week sheet ${document}`;
}

function Decide({ id }: { id: number }) {
  const [decide, { isLoading }] = useDecideApprovalMutation();
  const fields = useMemo(() => ({ note: words() }), []);
  const form = useCodecForm(fields, { note: '' });
  const submit = (give: boolean) =>
    form.submit(async ({ note }) => {
      await decide({ id, body: { give, note } }).unwrap();
      toast(give ? 'Approval given' : 'Approval refused');
    }, faultOf);
  return (
    <form aria-label="Decide" onSubmit={submit(true)} noValidate>
      {form.input('note', 'Note, or why it is refused', { className: 'max-w-[460px]' })}
      {form.refused && <Refused message={form.refused} />}
      <div className="mt-3 flex gap-3">
        <button className="button main" disabled={isLoading}>
          Give approval
        </button>
        <button type="button" className="button" disabled={isLoading} onClick={() => submit(false)()}>
          Refuse
        </button>
      </div>
    </form>
  );
}

/** Sends what was asked for again, as it was; where something has changed since, the server says so and nothing is done. */
function CarryOut({ it, request }: { it: ApprovalRow; request: SentAgain }) {
  const [send, { isLoading }] = useSendAgainMutation();
  const { refused, attempt } = useAttempt();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const carryOut = async () => {
    const done = await attempt(() => send({ call: `approval ${it.id}`, ...request }).unwrap(), 'Carried out');
    const to = pathOf(it);
    if (done && to !== null) void navigate(withMonth(to));
  };
  return (
    <>
      <button type="button" className="button main" disabled={isLoading} onClick={() => void carryOut()}>
        Carry it out
      </button>
      {refused && <Refused message={refused.message} />}
    </>
  );
}

/** Takes a refusal off the list of whoever asked, once it was read. */
function Acknowledge({ id }: { id: number }) {
  const [acknowledge, { isLoading }] = useAcknowledgeApprovalMutation();
  const { refused, attempt } = useAttempt();
  return (
    <>
      <button
        type="button"
        className="button main"
        disabled={isLoading}
        onClick={() => void attempt(() => acknowledge({ id }).unwrap(), 'Noted as read')}
      >
        I have read it
      </button>
      {refused && <Refused message={refused.message} />}
    </>
  );
}

function Withdraw({ id }: { id: number }) {
  const [withdraw, { isLoading }] = useWithdrawApprovalMutation();
  const { refused, attempt } = useAttempt();
  return (
    <p className="mt-4">
      <button
        type="button"
        className="button bare"
        disabled={isLoading}
        onClick={() => void attempt(() => withdraw({ id }).unwrap(), 'Approval withdrawn')}
      >
        Withdraw
      </button>
      {refused && <Refused message={refused.message} />}
    </p>
  );
}
