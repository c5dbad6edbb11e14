import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';

/** Over- or underbilled, with its sign; one of the two is always nothing. */
export function OverUnder({ over, under, job }: { over: number; under: number; job?: string }) {
  if (over === 0 && under === 0) return <>–</>;
  const name = over > 0 ? 'over' : 'under';
  return (
    <span className="inline-flex items-center gap-2">
      <Sign name={name} bare />
      <Fig
        value={over || under}
        of={{ figure: over > 0 ? 'overbilled' : 'underbilled', job }}
        label={over > 0 ? 'Overbilled' : 'Underbilled'}
      />
    </span>
  );
}
