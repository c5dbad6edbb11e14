import { NavLink, Outlet } from 'react-router';
import { useKeepMonth } from '../../ground/asOf';

const PARTS = [
  ['/set-up/prices', 'Prices'],
  ['/set-up/build-ups', 'Build-ups'],
] as const;

/** The price book: what things cost, and what work is made of. */
export function PriceBookPage() {
  const keep = useKeepMonth();
  return (
    <div className="page">
      <div className="mb-3 flex items-end gap-8">
        <h1>Price book</h1>
        <nav aria-label="Parts of the price book" className="flex gap-1">
          {PARTS.map(([to, name]) => (
            <NavLink
              key={to}
              to={keep(to)}
              className="px-3 py-1 no-underline"
              style={({ isActive }) => ({
                color: isActive ? 'var(--accent)' : 'var(--ink)',
                boxShadow: isActive ? 'inset 0 -3px 0 var(--accent)' : 'none',
                fontWeight: isActive ? 600 : 400,
              })}
            >
              {name}
            </NavLink>
          ))}
        </nav>
      </div>
      <Outlet />
    </div>
  );
}
