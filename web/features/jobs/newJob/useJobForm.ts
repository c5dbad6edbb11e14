import { useMemo, useState } from 'react';
import type { Lists } from '../../../../wire/company';
import { useAsOf } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { jobCodecs, readJob, type JobCodecs, type JobForm } from './readJob';

/** The facts of a new job as a form. */
export type JobFactsForm = ReturnType<typeof useCodecForm<JobCodecs['facts']>>;

/** What is typed of a new job, and how it reads. */
export function useJobForm(start: JobForm, lists: Lists) {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const context = useMemo(() => {
    const [clients, costCodes] = [lists.clients, lists.costCodes].map((list) => new Set(list.map((it) => it.code)));
    return { digits, month, clients: clients ?? new Set(), costCodes: costCodes ?? new Set() };
  }, [digits, month, lists]);
  const codecs = useMemo(() => jobCodecs(context), [context]);
  const facts: JobFactsForm = useCodecForm(codecs.facts, startOf(codecs, start), { partOfPage: true });
  const [rest, setRest] = useState<Omit<JobForm, 'facts'>>(start);
  // The texts are the same object as long as nobody types in them.
  const text = JSON.stringify(facts.text);
  const form = useMemo((): JobForm => ({ ...rest, facts: JSON.parse(text) as JobForm['facts'] }), [rest, text]);
  const read = useMemo(() => readJob(form, codecs, context), [form, codecs, context]);
  const setForm = (change: (before: JobForm) => JobForm) => {
    const { facts: typed, ...next } = change(form);
    facts.fill(typed as Partial<JobFactsForm['text']>);
    setRest(next);
  };
  return { form, setForm, facts, codecs, read };
}

function startOf(codecs: JobCodecs, { facts }: JobForm): JobFactsForm['text'] {
  return Object.fromEntries(Object.keys(codecs.facts).map((name) => [name, facts[name] ?? ''])) as JobFactsForm['text'];
}
