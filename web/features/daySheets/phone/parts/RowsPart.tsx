import { PART_TITLES } from '../../../../../core/daySheets/dayWords';
import { ONE_HOUR } from '../../../../../core/labour/sheets';
import type { PhoneJob, PhonePack } from '../../../../../wire/daySheets';
import { RowFaults, taskNamer, type PartProps } from './part';
import type { Phone } from '../Phone';
import { PhotoBox } from './PhotosPart';
import { ROWS, type RowField, type RowPart } from './rowFields';
import { ChoiceBox, NumberBox, TextBox, Toggle } from './touch';

type Row = Readonly<Record<string, unknown>>;

interface Props extends PartProps {
  part: RowPart;
  job: PhoneJob | undefined;
  phone: Phone;
}

/** A part of a day sheet that is a list: a row added by a touch, its cells one below the other. */
export function RowsPart({ part, day, change, faultsAt, job, phone }: Props) {
  const rows = day[part] as unknown as readonly Row[];
  const { add, fields, empty } = ROWS[part];
  const save = (next: readonly Row[]) => change({ [part]: next });
  const set = (i: number, more: Row) => save(rows.map((it, at) => (at === i ? { ...it, ...more } : it)));
  const faults = faultsAt(part);
  return (
    <section aria-label={PART_TITLES[part]}>
      <h2>{PART_TITLES[part]}</h2>
      {rows.map((row, i) => {
        const signed = Number(row.signature ?? 0) > 0;
        return (
          <div key={i} className="day-row" role="group" aria-label={`${PART_TITLES[part]} ${i + 1}`}>
            {fields.map((field) => (
              <Cell key={field.key} {...{ field, row, job, phone }} disabled={signed} onChange={(more) => set(i, more)} />
            ))}
            {signed ? (
              <span className="note">Signed by the client</span>
            ) : (
              <button type="button" className="button touch" onClick={() => save(rows.filter((_, at) => at !== i))}>
                Remove
              </button>
            )}
            <RowFaults faults={faults} at={`day.${part}.${i}.`} />
          </div>
        );
      })}
      <RowFaults faults={faults.filter((it) => it.field === `day.${part}`)} at="" />
      <button type="button" className="button touch mt-2" onClick={() => save([...rows, empty as unknown as Row])}>
        {add}
      </button>
    </section>
  );
}

interface CellProps {
  field: RowField;
  row: Row;
  job: PhoneJob | undefined;
  phone: Phone;
  disabled: boolean;
  onChange: (more: Row) => void;
}

function Cell({ field: { key, label, kind }, row, job, phone, disabled, onChange }: CellProps) {
  const value = row[key];
  const shared = { label, disabled };
  if (kind === 'task') return <TaskChoice {...{ row, job, disabled, onChange }} pack={phone.pack as PhonePack} label={label} />;
  if (kind === 'charged')
    return <Toggle text={label} on={value === true} disabled={disabled} onChange={(on) => onChange({ [key]: on })} />;
  if (kind === 'photo')
    return <PhotoBox {...shared} hash={String(value)} phone={phone} onPhoto={(hash) => onChange({ [key]: hash })} />;
  if (kind === 'text' || kind === 'long')
    return (
      <TextBox
        {...shared}
        long={kind === 'long'}
        value={String(value)}
        onValue={(text) => onChange({ [key]: text.slice(0, LONGEST[key] ?? 200) })}
      />
    );
  const step = kind === 'hours' ? ONE_HOUR : kind === 'count' ? 1 : undefined;
  return (
    <NumberBox
      {...shared}
      {...(step === undefined ? {} : { step })}
      labelled
      whole={kind === 'count'}
      value={Number(value)}
      onValue={(next) => onChange({ [key]: next })}
    />
  );
}
const LONGEST: Readonly<Record<string, number>> = { unit: 20, reference: 80, description: 400 };

/** A task of the job: its unit comes with it. */
function TaskChoice({
  row,
  job,
  pack,
  label,
  disabled,
  onChange,
}: Omit<CellProps, 'field' | 'phone'> & { pack: PhonePack; label: string }) {
  const name = (it: { section: unknown; costCode: unknown }) => JSON.stringify([it.section, it.costCode]);
  const nameOf = taskNamer(pack, job);
  const tasks = [...(job?.tasks ?? []), ...pack.costCodes.map((it) => ({ section: '', costCode: it.code, unit: '' }))];
  const options = [
    ...new Map(tasks.map((it) => [name(it), { value: name(it), text: `${nameOf(it)} (${it.costCode})` }])).values(),
  ];
  return (
    <ChoiceBox
      label={label}
      disabled={disabled}
      value={row.costCode === '' ? '' : name({ section: row.section, costCode: row.costCode })}
      options={[{ value: '', text: 'Choose' }, ...options]}
      onValue={(chosen) => {
        const task = tasks.find((it) => name(it) === chosen);
        onChange(task ? { section: task.section, costCode: task.costCode, unit: task.unit } : { section: '', costCode: '' });
      }}
    />
  );
}
