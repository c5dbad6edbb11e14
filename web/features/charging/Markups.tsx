import { useMemo, useState } from 'react';
import { COST_TYPES } from '../../../core/costs/costType';
import type { JobCharging } from '../../../wire/charging';
import { useSaveMarkupsMutation } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Pop } from '../../kit/Pop';
import { Refused } from '../../kit/States';
import { toast } from '../../kit/toast';
import { markup, optional } from '../../kit/typed/codecs';

const TITLES = { labour: 'Labour', material: 'Material', subcontract: 'Subcontract', equipment: 'Equipment', other: 'Other' };

/** What the job puts on its cost, by cost type, where an entry has no markup of its own and hours no charge rate. */
export function Markups({ job, data }: { job: string; data: JobCharging }) {
  const [open, setOpen] = useState(false);
  const said = data.markups.map((it) => `${it.costType} ${markup.format(it.markup)} %`).join(', ');
  return (
    <Pop
      button={`Markups: ${said || 'none'} …`}
      label="Markups"
      align="end"
      className="w-[260px] p-4"
      open={open}
      onOpen={setOpen}
    >
      <MarkupForm key={data.markupsSeen} job={job} data={data} onDone={() => setOpen(false)} />
    </Pop>
  );
}

function MarkupForm({ job, data, onDone }: { job: string; data: JobCharging; onDone: () => void }) {
  const fields = useMemo(() => Object.fromEntries(COST_TYPES.map((it) => [it, optional(markup, null)])), []);
  const start = Object.fromEntries(
    COST_TYPES.map((type) => {
      const there = data.markups.find((it) => it.costType === type);
      return [type, there ? markup.format(there.markup) : ''];
    }),
  );
  const form = useCodecForm(fields, start);
  const [save] = useSaveMarkupsMutation();
  const onSubmit = form.submit(async (values) => {
    const markups = COST_TYPES.flatMap((costType) => {
      const value = values[costType] as number | null;
      return value === null ? [] : [{ costType, markup: value }];
    });
    await save({ job, body: { seen: data.markupsSeen, markups } }).unwrap();
    toast('Markups saved');
    onDone();
  }, faultOf);
  return (
    <form aria-label="Markups" className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      {COST_TYPES.map((it) => (
        <div key={it}>{form.input(it, `${TITLES[it]}, %`)}</div>
      ))}
      <p className="note m-0 text-[12.5px]">
        On cost that is charged and on no invoice, unless an entry has its own. Empty: at cost.
      </p>
      <button className="button main self-start" disabled={form.busy}>
        Save markups
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
