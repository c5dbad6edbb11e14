import { Sign } from '../kit/Signs';
import { Fig } from './workings/Fig';

/** Over- and underbilled with their signs. A job is only ever one of them; a total may be both. */
export function OverUnder({ over, under, job }: { over: number; under: number; job?: string }) {
  if (over === 0 && under === 0) return <>–</>;
  return (
    <span className="inline-flex flex-col items-end leading-tight">
      {over > 0 && <Side name="over" value={over} job={job} />}
      {under > 0 && <Side name="under" value={under} job={job} />}
    </span>
  );
}

function Side({ name, value, job }: { name: 'over' | 'under'; value: number; job: string | undefined }) {
  const figure = name === 'over' ? 'overbilled' : 'underbilled';
  return (
    <span className="inline-flex items-center gap-2">
      <Sign name={name} bare />
      <Fig
        value={value}
        of={job === undefined ? { figure } : { figure, job }}
        label={name === 'over' ? 'Overbilled' : 'Underbilled'}
      />
    </span>
  );
}
