import { NavLink } from 'react-router';
import { useKeepMonth } from '../../ground/asOf';

const PARTS = [
  ['/ledger', 'Trial balance'],
  ['/ledger/tie-out', 'Tie-out'],
  ['/ledger/postings', 'Posted postings'],
] as const;

export function LedgerHead({ title, children }: { title: string; children?: React.ReactNode }) {
  const keep = useKeepMonth();
  return (
    <>
      <nav aria-label="Ledger" className="mb-2 flex gap-4">
        {PARTS.map(([to, text]) => (
          <NavLink
            key={to}
            end
            to={keep(to)}
            style={({ isActive }) => ({ fontWeight: isActive ? 600 : 400, color: isActive ? 'var(--ink)' : 'var(--accent)' })}
          >
            {text}
          </NavLink>
        ))}
      </nav>
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>{title}</h1>
        {children}
      </div>
    </>
  );
}
