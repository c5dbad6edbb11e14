import { NamedList } from '../../../kit/NamedList';
import { at } from '../../../../core/errors/known';
import {
  useJobTemplatesQuery,
  useLazyJobSetupQuery,
  useRemoveJobTemplateMutation,
  useSaveJobTemplateMutation,
} from '../../../ground/api/api';
import { Pop } from '../../../kit/Pop';
import { useState } from 'react';
import { toast } from '../../../kit/toast';
import type { Lists } from '../../../../wire/company';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { RepeatSection } from '../../../kit/grid/RepeatSection';
import { Field } from '../../../kit/Field';
import { repeatRows } from '../../../kit/grid/repeatRows';
import { copyInto, COPIED, templateOf, type CopiedPart } from './beginJob';
import type { JobForm } from './readJob';

/** Begins a job from another one, or from a saved template. */
export function BeginFrom({
  lists,
  form,
  setForm,
}: {
  lists: Lists;
  form: JobForm;
  setForm: (change: (before: JobForm) => JobForm) => void;
}) {
  return (
    <div className="flex items-center gap-2">
      <CopyJob lists={lists} setForm={setForm} />
      <Templates form={form} setForm={setForm} />
      <RepeatSection
        sections={[...new Set([...form.sov, ...form.budget].map((row) => (row.section ?? '').trim()))].filter(Boolean)}
        onRepeat={(section, names) =>
          setForm((before) => {
            const sov = repeatRows(before.sov, section, names, 'line');
            // The copied budget serves the copied lines.
            const own = before.sov.filter((row) => (row.section ?? '').trim() === section);
            const served = new Map(
              sov.map((row, i) => [`${row.section}\u001f${own[i % own.length]?.line ?? ''}`, row.line ?? '']),
            );
            const budget = repeatRows(before.budget, section, names, null).map((row) => ({
              ...row,
              sovLine: served.get(`${row.section}\u001f${row.sovLine ?? ''}`) ?? row.sovLine ?? '',
            }));
            return { ...before, sov: [...before.sov, ...sov], budget: [...before.budget, ...budget] };
          })
        }
      />
    </div>
  );
}

function CopyJob({ lists, setForm }: { lists: Lists; setForm: (change: (before: JobForm) => JobForm) => void }) {
  const { digits } = useCurrency();
  const [job, setJob] = useState('');
  const [parts, setParts] = useState<ReadonlySet<CopiedPart>>(new Set(Object.keys(COPIED) as CopiedPart[]));
  const [amounts, setAmounts] = useState(true);
  const [fault, setFault] = useState<string>();
  const [load] = useLazyJobSetupQuery();
  const copy = async (event: React.FormEvent) => {
    event.preventDefault();
    const number = at(job.split(' '), 0);
    try {
      const setup = await load({ job: number }).unwrap();
      setForm((before) => copyInto(before, setup, parts, amounts, digits));
      toast(`Taken from job ${number}`);
      setFault(undefined);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <Pop button="Copy from a job …" align="end" className="p-4 w-[340px]">
      <form className="flex flex-col gap-3" onSubmit={(event) => void copy(event)}>
        <Field label="Job" fault={fault}>
          <input value={job} list="jobs-to-copy" onChange={(event) => setJob(event.target.value)} />
        </Field>
        <datalist id="jobs-to-copy">
          {lists.jobs.map((it) => (
            <option key={it.number} value={it.number}>
              {it.name}
            </option>
          ))}
        </datalist>
        <fieldset className="m-0 grid grid-cols-2 gap-1 border-0 p-0">
          <legend className="note mb-1 p-0 text-[12.5px]">Include</legend>
          {(Object.entries(COPIED) as [CopiedPart, string][]).map(([key, title]) => (
            <label key={key} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={parts.has(key)}
                onChange={() => {
                  const next = new Set(parts);
                  if (!next.delete(key)) next.add(key);
                  setParts(next);
                }}
              />
              {title}
            </label>
          ))}
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={amounts} onChange={(event) => setAmounts(event.target.checked)} /> with amounts
          </label>
        </fieldset>
        <button className="button main self-start" disabled={job.trim() === '' || parts.size === 0}>
          Copy
        </button>
      </form>
    </Pop>
  );
}

function Templates({ form, setForm }: { form: JobForm; setForm: (change: (before: JobForm) => JobForm) => void }) {
  const { data: templates = [] } = useJobTemplatesQuery();
  const [fault, setFault] = useState<string>();
  const [save] = useSaveJobTemplateMutation();
  const [remove] = useRemoveJobTemplateMutation();
  const attempt = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      toast(said);
      setFault(undefined);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  const take = (name: string) => {
    const template = templates.find((it) => it.name === name)?.content;
    if (!template) return;
    setForm((before) => ({ ...template, facts: { ...template.facts, ...pickTyped(before.facts) } }));
    toast(`Begun from “${name}”`);
  };
  return (
    <Pop button="Templates …" align="end">
      <NamedList
        names={templates.map((it) => it.name)}
        empty="No templates yet."
        onTake={take}
        removing="Remove template"
        onRemove={(name) => void attempt(() => remove({ name }).unwrap(), `“${name}” is removed`)}
        saving="Save this job as a template"
        onSave={(name) =>
          void attempt(() => save({ body: { name, content: templateOf(form) } }).unwrap(), `“${name}” is saved as a template`)
        }
        fault={fault}
      />
    </Pop>
  );
}

/** What is this job's own stays as it was typed. */
function pickTyped(facts: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    ['number', 'name', 'client', 'status', 'awardedOn'].map((key) => [key, facts[key] ?? '']).filter(([, text]) => text !== ''),
  );
}
