import { displayDate } from '../../../core/calendar/displayDate';
import type { ApplicationView } from '../../../wire/billing';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';

type Of = Pick<ApplicationView, 'job' | 'dated'>;

/** What cost says a line has earned by the application's day, with a sign where more or less is billed. */
export function AgainstCost({ of, sovLine, billed, earned }: { of: Of; sovLine: string; billed: number; earned: number | null }) {
  if (earned === null) return <span className="note">no cost line</span>;
  const name = billed > earned ? 'over' : billed < earned ? 'under' : null;
  return (
    <span className="inline-flex items-center gap-1">
      {name && <Sign name={name} bare />}
      <Fig
        value={earned}
        of={{ figure: 'sovLineEarned', job: of.job, sovLine, on: of.dated }}
        label={`What cost says line ${sovLine} has earned`}
      />
    </span>
  );
}

/** Why the lines come to another sum than the job's earned revenue; nothing where they do not. */
export function EarnedNote({ view }: { view: ApplicationView }) {
  const byLine = view.lines.reduce((sum, it) => sum + (it.earnedByCost ?? 0), 0);
  if (byLine === view.earned) return null;
  return (
    <p className="note mb-0 mt-1 text-[12.5px]">
      Earned by cost is worked line by line, as of {displayDate(view.dated)}. Worked on the job as a whole, earned revenue on that
      day is{' '}
      <Fig value={view.earned} of={{ figure: 'earned', job: view.job, on: view.dated }} label="Earned revenue of the job" />.
    </p>
  );
}
