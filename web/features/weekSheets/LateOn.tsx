import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { useAsOf } from '../../ground/asOf';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { readDate } from '../../kit/typed/readDate';

export type Late = ReturnType<typeof useLateOn>;

/** The day that late lines count on; `proposed` null where none is late. */
export function useLateOn(proposed: string | null) {
  const { month } = useAsOf();
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? displayDate(proposed);
  const on = text.trim() === '' ? null : readDate(text, month);
  const fault = text.trim() !== '' && !on ? 'Enter a date, e.g. 1 Apr 2031, or leave it empty' : undefined;
  return { text, on: on ?? null, fault, setTyped, shown: proposed !== null };
}

/** Where lines of earlier months are among those to be posted: the accounting date they get. Left empty, each counts on its own day. */
export function LateOn({ late, onTyped }: { late: Late; onTyped: () => void }) {
  const { month } = useAsOf();
  if (!late.shown) return null;
  return (
    <Field
      label="Post hours of earlier months on"
      fault={late.fault}
      hint={late.fault ? undefined : 'blank: the day worked'}
      className="w-[210px]"
    >
      <DayInput
        value={late.text}
        month={month}
        onText={(text) => {
          late.setTyped(text);
          onTyped();
        }}
      />
    </Field>
  );
}
