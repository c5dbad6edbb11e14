import { isCrewName } from '../../../../core/daySheets/crewName';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { EMPTY_DAY } from '../../../../core/daySheets/daySheet';
import { isEnteredDate } from '../../../../core/calendar/plainDate';
import type { PhonePack } from '../../../../wire/daySheets';
import { dayAddress } from './DaysPage';
import { dayHere } from './dayHere';
import { isSame, usePhone } from './Phone';
import { TextBox } from './parts/touch';
import './phone.css';

/** Day, crew and job of a new sheet; one that is there is opened. */
export function NewDayPage() {
  const { pack } = usePhone();
  return (
    <div className="day-phone narrow">
      <p className="m-0">
        <Link to="/day-sheets">Day sheets</Link>
      </p>
      <h1 className="mb-3">New day sheet</h1>
      {pack && <NewDay pack={pack} />}
    </div>
  );
}

function NewDay({ pack }: { pack: PhonePack }) {
  const { owner, sheets, save } = usePhone();
  const [params] = useSearchParams();
  const [dated, setDated] = useState(() => params.get('on') ?? dayHere(pack.today));
  const asked = params.get('job');
  const jobs = pack.jobs.some((it) => it.number === asked) ? pack.jobs.filter((it) => it.number === asked) : pack.jobs;
  const [crew, setCrew] = useState(owner);
  const [fault, setFault] = useState('');
  const navigate = useNavigate();
  const open = async (job: PhonePack['jobs'][number]) => {
    if (!isEnteredDate(dated)) return setFault('Choose the day first');
    if (!isCrewName(crew)) return setFault('Name the crew first, such as its leader');
    const key = { owner, job: job.number, dated, crew: crew.trim() };
    if (!sheets.some((it) => isSame(it, key)))
      await save({
        ...key,
        jobName: job.name,
        day: EMPTY_DAY,
        base: null,
        seen: '',
        toSend: false,
        leftOut: '',
        met: null,
        fault: null,
        view: null,
      });
    await navigate(dayAddress(key), { replace: true });
  };
  return (
    <>
      <div className="flex flex-wrap gap-3">
        <span className="touch-field">
          <label htmlFor="new-day" className="note">
            Day
          </label>
          <input
            id="new-day"
            type="date"
            className="box touch"
            value={dated}
            onChange={(event) => setDated(event.target.value)}
          />
        </span>
        <TextBox label="Crew of" value={crew} onValue={(it) => setCrew(it.slice(0, 80))} />
      </div>
      {fault !== '' && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      <h2 className="mb-2 mt-5">Job</h2>
      <ul className="m-0 flex list-none flex-col gap-2 p-0">
        {jobs.map((it) => (
          <li key={it.number}>
            <button type="button" className="button touch wide" onClick={() => void open(it)}>
              <span>
                <b>{it.number}</b> {it.name}
                <span className="note block">{it.site}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
