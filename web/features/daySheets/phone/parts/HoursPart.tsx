import { useMemo, useState } from 'react';
import { sumHours } from '../../../../../core/daySheets/daySheet';
import { displayQuantity } from '../../../../../core/money/display';
import type { PhoneJob, PhonePack } from '../../../../../wire/daySheets';
import { HourRows } from './HourRows';
import { recentTasks, Tasks } from './HourTasks';
import { namesOf, taskNamer, type PartProps } from './part';
import type { Phone } from '../Phone';
import { Toggle } from './touch';

/** Hours of the crew: who is there, then a task, then one touch for all of them; each person's can be changed after. */
export function HoursPart({
  day,
  change,
  faultsAt,
  phone,
  job,
  dated,
}: PartProps & { phone: Phone; job: PhoneJob | undefined; dated: string }) {
  const pack = phone.pack as PhonePack;
  const employed = pack.employees.filter((it) => (it.startsOn ?? '') <= dated && (it.endsOn ?? dated) >= dated);
  const nameOf = useMemo(() => namesOf(pack), [pack]);
  const first = day.hours.length > 0 ? [...new Set(day.hours.map((it) => it.employee))] : (job?.crew ?? []);
  const [crew, setCrew] = useState<ReadonlySet<string>>(
    () => new Set(first.filter((it) => employed.some((one) => one.employee === it))),
  );
  const [choosing, setChoosing] = useState(crew.size === 0);
  const toggle = (who: string, on: boolean) =>
    setCrew((before) => new Set(on ? [...before, who] : [...before].filter((it) => it !== who)));
  const total = sumHours(day.hours);
  return (
    <section aria-label="Hours">
      <h2>Hours {total > 0 && <span className="note">{displayQuantity(total)} h</span>}</h2>
      <p className="m-0 mb-2">
        {employed.length === 0
          ? 'Nobody is employed on this day; the office enters employees in Set-up, Labour.'
          : crew.size === 0
            ? 'Who is here today?'
            : [...crew].map(nameOf).join(', ')}
      </p>
      {choosing && (
        <div className="mb-2 flex flex-wrap gap-2" role="group" aria-label="Crew">
          {employed.map((it) => (
            <Toggle key={it.employee} text={it.name} on={crew.has(it.employee)} onChange={(on) => toggle(it.employee, on)} />
          ))}
        </div>
      )}
      <button type="button" className="button touch" onClick={() => setChoosing(!choosing)}>
        {choosing ? 'Crew is complete' : 'Change crew'}
      </button>
      <HourRows {...{ day, change, faultsAt, nameOf }} taskName={taskNamer(pack, job)} />
      {crew.size > 0 && <Tasks {...{ day, change, pack, job, crew: [...crew] }} recent={recentTasks(phone, job)} />}
    </section>
  );
}
