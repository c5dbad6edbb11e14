import { Link } from 'react-router';
import { WAITING, WAITING_NAMES } from '../../core/waiting/waiting';
import { useWaitingQuery } from './api/api';
import { useWithMonth } from './asOf';

/** What waits for whoever is signed in, by kind, in one line; nothing where nothing does. */
export function WaitingLine() {
  const withMonth = useWithMonth();
  const { data } = useWaitingQuery();
  if (!data || data.length === 0) return null;
  const kinds = WAITING_NAMES.map((kind) => ({ kind, count: data.filter((it) => it.kind === kind).length })).filter(
    (it) => it.count > 0,
  );
  return (
    <p className="m-0 mb-3">
      <Link to={withMonth('/waiting')}>Waiting for you</Link>
      <span className="note">
        {': '}
        {kinds.map(({ kind, count }) => `${count} ${WAITING[kind].todo[count === 1 ? 0 : 1]}`).join(' · ')}
      </span>
    </p>
  );
}

/** How much of it there is, for the band. */
export function WaitingCount() {
  const withMonth = useWithMonth();
  const { data } = useWaitingQuery();
  if (!data || data.length === 0) return null;
  return (
    <Link
      className="button bare"
      to={withMonth('/waiting')}
      title="Waiting for you"
      aria-label={`Waiting for you: ${data.length}`}
    >
      {data.length} to do
    </Link>
  );
}
