import { useState } from 'react';
import type { DayHours } from '../../../../../core/daySheets/daySheet';
import { PAY_CLASSES, type PayClass } from '../../../../../core/labour/payClass';
import { ONE_HOUR } from '../../../../../core/labour/sheets';
import { grouped } from '../../../../../core/lists/grouped';
import { plural } from '../../../../../core/names/plural';
import { RowFaults, type PartProps } from './part';
import { ChoiceBox, NumberBox, TextBox, Toggle } from './touch';

export const HALF_HOUR = ONE_HOUR / 2;
const CLASS_WORDS: Readonly<Record<PayClass, string>> = { regular: 'Regular', overtime: 'Overtime', double: 'Double' };

export function ClassChoice({
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
export function HourRows({ day, change, faultsAt, nameOf, taskName }: RowsProps) {
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
