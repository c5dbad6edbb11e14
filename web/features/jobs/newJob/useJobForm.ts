import { useMemo } from 'react';
import type { Lists } from '../../../../wire/company';
import { useAsOf } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { unknownCodes } from '../../../ground/costCodes/unknownCodes';
import { useDraftFacts } from '../../../kit/draft/useDraftFacts';
import { rowsUnderKeys, useDraftParts } from '../../../kit/draft/useDraftParts';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';
import { jobCodecs, readJob, type JobCodecs, type JobForm } from './readJob';

/** The facts of a new job as a form. */
export type JobFactsForm = ReturnType<typeof useCodecForm<JobCodecs['facts']>>;

interface Options {
  start: JobForm;
  lists: Lists;
  /** What the draft is known by in this browser, and the version it is typed over. */
  draft: { name: string; seen: string };
}

/** What is typed of a new job, or of the schedule and budget of one, and how it reads. It stays in this browser until it is sent. */
export function useJobForm({ start, lists, draft: { name, seen } }: Options) {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  const context = useMemo(() => {
    const codes = (list: readonly { code: string }[]) => new Set(list.map((it) => it.code));
    return {
      digits,
      month,
      clients: codes(lists.clients),
      costCodes: codes(lists.costCodes),
      listed: { kind: codes(lists.kinds), department: codes(lists.departments), workKind: codes(lists.workKinds) },
    };
  }, [digits, month, lists]);
  const codecs = useMemo(() => jobCodecs(context), [context]);
  const draft = useDraftParts({ name, seen, start: useMemo(() => startParts(start), [start]) });
  const { parts, setParts } = draft;
  const factsRow = parts.facts[0] ?? {};
  const facts: JobFactsForm = useCodecForm(codecs.facts, startOf(codecs, { ...start.facts, ...factsRow }), { partOfPage: true });
  useDraftFacts(facts, factsRow, (row) => setParts({ facts: [row] }));
  // The texts are the same object as long as nobody types in them.
  const text = JSON.stringify(facts.text);
  const form = useMemo(
    (): JobForm => ({
      sov: parts.sov,
      budget: parts.budget,
      ...copiedOf(parts.copied[0]),
      facts: JSON.parse(text) as JobForm['facts'],
    }),
    [parts, text],
  );
  const read = useMemo(() => readJob(form, codecs, context), [form, codecs, context]);
  const setForm = (change: (before: JobForm) => JobForm) => setParts(partsOf(change(form), factsRow));
  const unknown = unknownCodes(
    form.budget.map((row) => row.code),
    context.costCodes,
  );
  return { form, setForm, facts, codecs, read, unknownCodes: unknown, draft, typed: draft.isTyped() };
}

function startParts(start: JobForm) {
  return {
    ...partsOf(start, {}),
    sov: rowsUnderKeys(
      start.sov,
      (it) => it.line ?? '',
      (it) => it,
    ),
    budget: rowsUnderKeys(
      start.budget,
      (it) => JSON.stringify([it.section, it.code, it.type, it.sovLine, it.description]),
      (it) => it,
    ),
  };
}

/** Team and checklist copied from another job are no text: they stand in one cell. */
function partsOf({ facts, sov, budget, people, checklist }: JobForm, factsRow: GridRow) {
  return {
    facts: [{ [ROW_KEY]: 'facts', ...factsRow, ...facts }],
    sov,
    budget,
    copied: people || checklist ? [{ [ROW_KEY]: 'copied', as: JSON.stringify({ people, checklist }) }] : [],
  };
}

function copiedOf(row: GridRow | undefined): Pick<JobForm, 'people' | 'checklist'> {
  return row?.as ? (JSON.parse(row.as) as Pick<JobForm, 'people' | 'checklist'>) : {};
}

function startOf(codecs: JobCodecs, facts: GridRow): JobFactsForm['text'] {
  return Object.fromEntries(Object.keys(codecs.facts).map((name) => [name, facts[name] ?? ''])) as JobFactsForm['text'];
}
