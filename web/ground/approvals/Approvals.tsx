import { Link } from 'react-router';
import type { ApprovalName } from '../../../core/approvals/approvals';
import type { ApprovalRow } from '../../../wire/approvals';
import { displayMoment } from '../../kit/displayMoment';
import { useApprovalsQuery } from '../api/api';
import { useWithMonth } from '../asOf';
import { useCurrency } from '../company';

/** The approvals of a document, or of all of a kind of a job, as it shows them: what was asked, by whom, and what came of it. */
export function Approvals(of: { kind: ApprovalName; job?: string; document?: string }) {
  const withMonth = useWithMonth();
  const { exact } = useCurrency();
  const { data } = useApprovalsQuery(of, { refetchOnMountOrArgChange: true });
  if (!data || data.length === 0) return null;
  return (
    <section aria-label="Approvals" className="my-3">
      <h3 className="mb-1">Approvals</h3>
      <ul className="m-0 list-none p-0">
        {data.map((it) => (
          <li key={it.id} className="mb-1">
            <Link to={withMonth(`/approvals/${it.id}`)}>{exact(it.amount)}</Link> asked for by {it.askedBy},{' '}
            {displayMoment(it.askedAt)}: {it.reason} · <b>{stateOf(it)}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where an approval stands, in words. */
export function stateOf({ state, role, decidedBy, decidedFor, decidedAt, decision }: ApprovalRow): string {
  if (state === 'asked') return `waits for ${role === 'owner' ? 'an owner' : `${role} or owner`}`;
  if (state === 'withdrawn') return 'withdrawn';
  const who = `by ${decidedBy}${decidedFor && ` for ${decidedFor}`}, ${displayMoment(decidedAt)}`;
  if (state === 'refused') return `refused ${who}: ${decision}`;
  return `given ${who}${decision && `: ${decision}`}${state === 'used' ? '; carried out' : '; not yet carried out'}`;
}
