import { useCurrency } from '../../app/company';
import { Sign } from '../../ui/Signs';

/** What cost says beside what is billed: ahead, behind, or nothing to say. */
export function AgainstCost({ billed, earned }: { billed: number; earned: number | null }) {
  const { show } = useCurrency();
  if (earned === null) return <span className="note">no cost line</span>;
  const name = billed > earned ? 'over' : billed < earned ? 'under' : null;
  return (
    <span className="inline-flex items-center gap-1">
      {name && <Sign name={name} bare />}
      {show(earned)}
    </span>
  );
}
