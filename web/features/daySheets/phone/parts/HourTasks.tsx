import { useState } from 'react';
import { withCrewHours, type DaySheet } from '../../../../../core/daySheets/daySheet';
import type { PayClass } from '../../../../../core/labour/payClass';
import { displayHours, ONE_HOUR } from '../../../../../core/labour/sheets';
import { grouped } from '../../../../../core/lists/grouped';
import { displayQuantity } from '../../../../../core/money/display';
import type { PhoneJob, PhonePack } from '../../../../../wire/daySheets';
import { ClassChoice, HALF_HOUR } from './HourRows';
import type { PartProps } from './part';
import type { Phone } from '../Phone';
import { ChoiceBox, NumberBox, TextBox, Toggle } from './touch';

/** How often each task of a job is on the sheets of this phone: the crew most likely goes on with it. */
export function recentTasks({ sheets }: Phone, job: PhoneJob | undefined): ReadonlyMap<string, number> {
  const rows = sheets.filter((it) => it.job === job?.number).flatMap((it) => it.day.hours);
  return new Map([...grouped(rows, keyOf).entries()].map(([task, of]) => [task, of.length]));
}
const keyOf = ({ section, costCode }: { section: string; costCode: string }) => `${section} ${costCode}`;

interface TasksProps {
  recent: ReadonlyMap<string, number>;
  day: DaySheet;
  change: PartProps['change'];
  pack: PhonePack;
  job: PhoneJob | undefined;
  crew: readonly string[];
}

const NO_TASK = { section: '', costCode: '', workKind: '', pay: null as PayClass | null, description: '', charged: false };

/** The tasks of the job; a touch on one opens it with the hours of a usual day, another puts them on the whole crew. */
export function Tasks({ day, change, pack, job, crew, recent }: TasksProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [task, setTask] = useState(NO_TASK);
  const worked = (who: string) => day.hours.reduce((sum, it) => sum + (it.employee === who ? it.hours : 0), 0);
  const [hours, setHours] = useState(0);
  const show = (name: string, of: Partial<typeof NO_TASK>) => {
    setOpen(open === name ? null : name);
    setTask({ ...NO_TASK, workKind: job?.workKind ?? '', ...of });
    // What is left of a usual day for whoever has worked most of it.
    const left = pack.usualHours - Math.max(...crew.map(worked));
    setHours(left > 0 ? left : ONE_HOUR);
  };
  const put = () => {
    change({ hours: withCrewHours(day.hours, crew, { ...task, hours }) });
    setOpen(null);
  };
  const panel = <TaskPanel {...{ task, setTask, hours, setHours, pack, put }} people={crew.length} />;
  const oftenFirst = (a: string, b: string) => (recent.get(b) ?? 0) - (recent.get(a) ?? 0);
  const tasks = (job?.tasks ?? []).toSorted((a, b) => oftenFirst(keyOf(a), keyOf(b)));
  return (
    <>
      <h3 className="mt-5 mb-2 text-[15px]!">{day.hours.length === 0 ? 'Choose the task' : 'Add hours: choose the task'}</h3>
      <ul className="m-0 flex list-none flex-col gap-2 p-0" aria-label="Tasks">
        {tasks.map((it) => {
          const name = keyOf(it);
          return (
            <li key={name}>
              <button
                type="button"
                className="button touch wide"
                aria-expanded={open === name}
                onClick={() => show(name, { section: it.section, costCode: it.costCode })}
              >
                <span>
                  {[it.section, it.description].filter(Boolean).join(' · ')}
                  <span className="note block">
                    {it.costCode} · {displayHours(it.used)} of {displayHours(it.budgeted)} h used
                  </span>
                </span>
              </button>
              {open === name && panel}
            </li>
          );
        })}
        <li>
          <button type="button" className="button touch wide" aria-expanded={open === OTHER} onClick={() => show(OTHER, {})}>
            Another cost code
          </button>
          {open === OTHER && (
            <div className="day-row">
              <ChoiceBox
                label="Cost code"
                value={task.costCode}
                options={[
                  { value: '', text: 'Choose' },
                  ...pack.costCodes.map((it) => ({ value: it.code, text: `${it.code} ${it.description}` })),
                ]}
                onValue={(costCode) => setTask({ ...task, costCode })}
              />
              {(job?.sections.length ?? 0) > 0 && (
                <ChoiceBox
                  label="Section"
                  value={task.section}
                  options={[{ value: '', text: 'None' }, ...(job?.sections ?? []).map((it) => ({ value: it, text: it }))]}
                  onValue={(section) => setTask({ ...task, section })}
                />
              )}
              {task.costCode !== '' && panel}
            </div>
          )}
        </li>
      </ul>
    </>
  );
}
const OTHER = 'other';

interface TaskPanelProps {
  task: typeof NO_TASK;
  setTask: (task: typeof NO_TASK) => void;
  hours: number;
  setHours: (hours: number) => void;
  pack: PhonePack;
  put: () => void;
  people: number;
}

function TaskPanel({ task, setTask, hours, setHours, pack, put, people }: TaskPanelProps) {
  const [more, setMore] = useState(false);
  const kind = pack.workKinds.find((it) => it.workKind === task.workKind)?.description;
  return (
    <div className="day-row">
      <button type="button" className="button main touch wide justify-center!" disabled={hours === 0} onClick={put}>
        {displayQuantity(hours)} h for {people === 1 ? '1 person' : `all ${people} people`}
        {kind && `, ${kind}`}
      </button>
      <NumberBox label="Hours" value={hours} step={HALF_HOUR} onValue={setHours} />
      <button type="button" className="button touch" aria-expanded={more} onClick={() => setMore(!more)}>
        More
      </button>
      {more && (
        <>
          <ClassChoice pay={task.pay} onPay={(pay) => setTask({ ...task, pay })} />
          {pack.workKinds.length > 0 && (
            <ChoiceBox
              label="Kind of work"
              value={task.workKind}
              options={[
                { value: '', text: 'Usual' },
                ...pack.workKinds.map((it) => ({ value: it.workKind, text: it.description })),
              ]}
              onValue={(workKind) => setTask({ ...task, workKind })}
            />
          )}
          <Toggle text="To be charged to the client" on={task.charged} onChange={(charged) => setTask({ ...task, charged })} />
          <TextBox
            label="Remark"
            value={task.description}
            onValue={(it) => setTask({ ...task, description: it.slice(0, 400) })}
          />
        </>
      )}
    </div>
  );
}
