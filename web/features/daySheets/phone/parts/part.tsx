import type { DaySheet } from '../../../../../core/daySheets/daySheet';
import type { Fault } from '../../../../../core/errors/ledrinError';
import type { PhoneJob, PhonePack } from '../../../../../wire/daySheets';

export interface PartProps {
  day: DaySheet;
  change: (more: Partial<DaySheet>) => void;
  /** What the server said against a part, by field. */
  faultsAt: (part: string) => readonly Fault[];
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
