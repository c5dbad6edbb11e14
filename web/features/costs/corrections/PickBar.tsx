import { Link } from 'react-router';
import { useWithMonth } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import type { Picks } from './usePicks';

/** What may be done with the entries that are picked. */
export function PickBar({ picks }: { picks: Picks }) {
  const withMonth = useWithMonth();
  const { exact, code } = useCurrency();
  const rows = [...picks.picked.values()];
  // It has its room from the start: ticking a row moves no other from under the hand.
  if (rows.length === 0)
    return (
      <div className="pick-bar">
        <span className="note">Tick entries to move or reverse them, or select rows and press Space.</span>
      </div>
    );
  const total = rows.reduce((sum, it) => sum + it.amount, 0);
  const correct = (way: string) => withMonth(`/costs/correct?way=${way}&entries=${rows.map((it) => it.id).join(',')}`);
  const uninstalled = rows.filter((it) => it.notInstalled !== 0).map((it) => it.id);
  return (
    <div className="pick-bar" role="status">
      <b>
        {rows.length} {rows.length === 1 ? 'entry' : 'entries'} picked, {exact(total)} {code}
      </b>
      <Link className="button" to={correct('move')}>
        Move …
      </Link>
      <Link className="button" to={correct('reverse')}>
        Reverse …
      </Link>
      {uninstalled.length > 0 && (
        <Link className="button" to={withMonth(`/costs/material-on-site?entries=${uninstalled.join(',')}`)}>
          Install …
        </Link>
      )}
      <button type="button" className="button bare" onClick={picks.clear}>
        Clear selection
      </button>
    </div>
  );
}
