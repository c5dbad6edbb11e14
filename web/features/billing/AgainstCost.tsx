import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';

/** What cost says beside what is billed: ahead, behind, or nothing to say. */
export function AgainstCost({
  job,
  sovLine,
  billed,
  earned,
}: {
  job: string;
  sovLine: string;
  billed: number;
  earned: number | null;
}) {
  if (earned === null) return <span className="note">no cost line</span>;
  const name = billed > earned ? 'over' : billed < earned ? 'under' : null;
  return (
    <span className="inline-flex items-center gap-1">
      {name && <Sign name={name} bare />}
      <Fig value={earned} of={{ figure: 'sovLineEarned', job, sovLine }} label={`What cost says line ${sovLine} has earned`} />
    </span>
  );
}
