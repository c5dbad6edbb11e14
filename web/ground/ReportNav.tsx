import { NavLink } from 'react-router';
import { useKeepMonth } from '../ground/asOf';

const REPORTS = [
  ['work-in-progress', 'Work in progress'],
  ['estimate-versus-actual', 'Estimate versus actual'],
  ['changes', 'Change orders'],
  ['ageing', 'Ageing'],
] as const;

/** The way from one report to the others. */
export function ReportNav() {
  const keep = useKeepMonth();
  return (
    <nav aria-label="Reports" className="mb-2 flex gap-4">
      {REPORTS.map(([to, text]) => (
        <NavLink
          key={to}
          to={keep(`/reports/${to}`)}
          style={({ isActive }) => ({ fontWeight: isActive ? 600 : 400, color: isActive ? 'var(--ink)' : 'var(--accent)' })}
        >
          {text}
        </NavLink>
      ))}
    </nav>
  );
}
