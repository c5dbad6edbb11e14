import { useMemo, useState } from 'react';
import type { DayHours, DaySheet } from '../../../../core/daySheets/daySheet';
import { withCrewHours } from '../../../../core/daySheets/daySheet';
import type { Fault } from '../../../../core/errors/ledrinError';
import { PAY_CLASSES, type PayClass } from '../../../../core/labour/payClass';
import { displayHours, ONE_HOUR } from '../../../../core/labour/sheets';
import { grouped } from '../../../../core/lists/grouped';
import { displayQuantity } from '../../../../core/money/display';
import { plural } from '../../../../core/names/plural';
import type { PhoneJob, PhonePack } from '../../../../wire/daySheets';
import type { Phone } from './Phone';
import { ChoiceBox, NumberBox, TextBox, Toggle } from './touch';

export interface PartProps {
  day: DaySheet;
  change: (more: Partial<DaySheet>) => void;
  /** What the server said against a part, by field. */
  faultsAt: (part: string) => readonly Fault[];
}

const HALF_HOUR = ONE_HOUR / 2;
export const CLASS_WORDS: Readonly<Record<PayClass, string>> = { regular: 'Regular', overtime: 'Overtime', double: 'Double' };

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
  const total = day.hours.reduce((sum, it) => sum + it.hours, 0);
  return (
    <section aria-label="Hours">
      <h2>Hours {total > 0 && <span className="note">{displayQuantity(total)} h</span>}</h2>
      <p className="m-0 mb-2">{crew.size === 0 ? 'Who is here today?' : [...crew].map(nameOf).join(', ')}</p>
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

export function namesOf(pack: PhonePack): (employee: string) => string {
  const names = new Map(pack.employees.map((it) => [it.employee, it.name]));
  return (employee) => names.get(employee) ?? employee;
}

/** How a task is called: its section and what it is; by its code where nothing more is known. */
export function taskNamer(pack: PhonePack, job: PhoneJob | undefined) {
  return ({ section, costCode }: { section: string; costCode: string }): string => {
    const task = job?.tasks.find((it) => it.section === section && it.costCode === costCode);
    const words = task?.description ?? pack.costCodes.find((it) => it.code === costCode)?.description ?? costCode;
    return [section, words].filter(Boolean).join(' · ');
  };
}

/** How often each task of a job is on the sheets of this phone: the crew most likely goes on with it. */
function recentTasks({ sheets }: Phone, job: PhoneJob | undefined): ReadonlyMap<string, number> {
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
function Tasks({ day, change, pack, job, crew, recent }: TasksProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [task, setTask] = useState(NO_TASK);
  const worked = (who: string) => day.hours.reduce((sum, it) => sum + (it.employee === who ? it.hours : 0), 0);
  const [hours, setHours] = useState(0);
  const show = (name: string, of: Partial<typeof NO_TASK>) => {
    setOpen(open === name ? null : name);
    setTask({ ...NO_TASK, ...of });
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
  return (
    <div className="day-row">
      <button type="button" className="button main touch wide justify-center!" disabled={hours === 0} onClick={put}>
        {displayQuantity(hours)} h for {people === 1 ? '1 person' : `all ${people} people`}
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

function ClassChoice({
  pay,
  onPay,
  disabled = false,
}: {
  pay: PayClass | null;
  onPay: (pay: PayClass | null) => void;
  disabled?: boolean;
}) {
  return (
    <ChoiceBox
      label="Pay class"
      value={pay ?? ''}
      disabled={disabled}
      options={[
        { value: '', text: 'Split by the overtime rule' },
        ...PAY_CLASSES.map((it) => ({ value: it, text: CLASS_WORDS[it] })),
      ]}
      onValue={(it) => onPay(it === '' ? null : (it as PayClass))}
    />
  );
}

interface RowsProps extends PartProps {
  nameOf: (employee: string) => string;
  taskName: (task: { section: string; costCode: string }) => string;
}

/** What is entered, by task; a person's hours are changed by − and + or typed. */
function HourRows({ day, change, faultsAt, nameOf, taskName }: RowsProps) {
  const [open, setOpen] = useState<number | null>(null);
  const rows = day.hours.map((row, i) => ({ row, i }));
  const set = (i: number, more: Partial<DayHours>) =>
    change({ hours: day.hours.map((it, at) => (at === i ? { ...it, ...more } : it)) });
  const faults = faultsAt('hours');
  return (
    <>
      {[...grouped(rows, ({ row }) => taskName(row)).entries()].map(([task, of]) => (
        <div key={task} className="mt-4">
          <h3 className="text-[15px]!">
            {task} <span className="note">{plural(of.length, 'person', 'people')}</span>
          </h3>
          {of.map(({ row, i }) => {
            const signed = row.signature > 0;
            return (
              <div key={i} className="day-row items-center!">
                <button
                  type="button"
                  className="button bare touch min-w-0 flex-1 justify-start! text-left"
                  aria-expanded={open === i}
                  onClick={() => setOpen(open === i ? null : i)}
                >
                  <span className="min-w-0">
                    {nameOf(row.employee)}
                    <span className="note block">
                      {[
                        row.pay && CLASS_WORDS[row.pay],
                        row.workKind,
                        row.charged && (signed ? 'charged, signed' : 'to be charged'),
                        row.description,
                      ]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                  </span>
                </button>
                <NumberBox
                  label={`Hours of ${nameOf(row.employee)}`}
                  value={row.hours}
                  step={HALF_HOUR}
                  disabled={signed}
                  onValue={(hours) => set(i, { hours })}
                />
                {open === i && !signed && (
                  <>
                    <ClassChoice pay={row.pay} onPay={(pay) => set(i, { pay })} />
                    <Toggle text="To be charged to the client" on={row.charged} onChange={(charged) => set(i, { charged })} />
                    <TextBox label="Remark" value={row.description} onValue={(it) => set(i, { description: it.slice(0, 400) })} />
                    <button
                      type="button"
                      className="button touch"
                      onClick={() => (setOpen(null), change({ hours: day.hours.filter((_, at) => at !== i) }))}
                    >
                      Remove
                    </button>
                  </>
                )}
                <RowFaults faults={faults} at={`day.hours.${i}.`} />
              </div>
            );
          })}
        </div>
      ))}
      <RowFaults faults={faults.filter((it) => it.field === 'day.hours')} at="" />
    </>
  );
}

/** What the server said against a row, beneath it. */
export function RowFaults({ faults, at }: { faults: readonly Fault[]; at: string }) {
  return (
    <>
      {faults
        .filter((it) => it.field.startsWith(at))
        .map((it) => (
          <p key={it.field + it.message} role="alert" className="fault m-0 basis-full">
            {it.message}
          </p>
        ))}
    </>
  );
}
