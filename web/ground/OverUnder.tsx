import { Sign } from '../kit/Signs';
import { useCurrency } from './company';
import { Fig } from './workings/Fig';

interface OverUnderProps {
  over: number;
  under: number;
  /** Left out for all jobs together. */
  job?: string;
  /** False where the sum has no workings of its own. */
  worked?: boolean;
}

/** Over- and underbilled with their signs. A job is only ever one of them; a total may be both. */
export function OverUnder({ over, under, job, worked = true }: OverUnderProps) {
  if (over === 0 && under === 0) return <>–</>;
  return (
    <span className="inline-flex flex-col items-end leading-tight">
      {over > 0 && <Side name="over" value={over} job={job} worked={worked} />}
      {under > 0 && <Side name="under" value={under} job={job} worked={worked} />}
    </span>
  );
}

interface SideProps {
  name: 'over' | 'under';
  value: number;
  job: string | undefined;
  worked: boolean;
}

function Side({ name, value, job, worked }: SideProps) {
  const { show } = useCurrency();
  const figure = name === 'over' ? 'overbilled' : 'underbilled';
  return (
    <span className="inline-flex items-center gap-2">
      <Sign name={name} bare />
      {worked ? (
        <Fig
          value={value}
          of={job === undefined ? { figure } : { figure, job }}
          label={name === 'over' ? 'Overbilled' : 'Underbilled'}
        />
      ) : (
        show(value)
      )}
    </span>
  );
}
