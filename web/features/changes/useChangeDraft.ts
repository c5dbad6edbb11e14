import { isFilled } from '../../kit/grid/filledRow';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { ChangeView } from '../../../wire/changes';
import type { Lists } from '../../../wire/company';
import type { EstimateView } from '../../../wire/jobs';
import {
  useAddChangeMutation,
  useDeleteChangeMutation,
  useIssueChangeMutation,
  useSaveChangeMutation,
} from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import type { GridRow } from '../../kit/grid/gridTypes';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { readDate } from '../../kit/typed/readDate';
import { formOf, readChange, type ChangeForm } from './changeForm';

export interface DraftSource {
  view: ChangeView;
  lists: Lists;
  /** The job's SOV lines and cost lines. */
  spent: EstimateView;
  onTyped: OnTyped;
}
export type ChangeDraftState = ReturnType<typeof useChangeDraft>;

/** What is typed of a draft change, how it reads, and what can be done with it. */
export function useChangeDraft({ view, lists, spent, onTyped }: DraftSource) {
  const { digits } = useCurrency();
  const { month } = useAsOf();
  const [form, setForm] = useState<ChangeForm>(() => formOf(view, digits));
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const context = useMemo(
    () => ({
      digits,
      month,
      costCodes: new Set(lists.costCodes.map((it) => it.code)),
      sovLines: new Set(spent.revenue.map((it) => it.line)),
    }),
    [digits, month, lists, spent],
  );
  const read = useMemo(() => readChange(form, view.version, context), [form, view.version, context]);
  const typed = JSON.stringify(form) !== JSON.stringify(formOf(view, digits));
  useTyped(typed, onTyped);
  const shown = [...read.faults, ...(refused?.faults ?? []).map((it) => [it.field, it.message] as const)].filter(
    ([at]) => asked || !at.startsWith('facts.'),
  );
  return {
    ...{ view, form, setForm, read, refused, setRefused, setAsked },
    changed: view.version === 0 || typed,
    saved: () => onTyped(false),
    /** The faults of a part of the form, by what stands after its name. */
    faultsIn: (part: string) =>
      new Map(shown.filter(([at]) => at.startsWith(part)).map(([at, text]) => [at.slice(part.length), text])),
    fact: (key: keyof ChangeForm['facts']) => ({
      value: form.facts[key],
      onChange: (event: { target: { value: string } }) => {
        const { value } = event.target;
        setForm((before) => ({ ...before, facts: { ...before.facts, [key]: value } }));
      },
    }),
    addRows: (rows: { price?: GridRow[]; cost: GridRow[] }) =>
      setForm((before) => ({
        ...before,
        price: [...before.price.filter(isFilled), ...(rows.price ?? [])],
        cost: [...before.cost.filter(isFilled), ...rows.cost],
      })),
  };
}

/** Saves, issues and deletes a draft. What is refused is shown on the form, and what was typed stays. */
export function useDraftActions({ view, read, changed, saved, setAsked, setRefused }: ChangeDraftState) {
  const { exact } = useCurrency();
  const { month } = useAsOf();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [create, creating] = useAddChangeMutation();
  const [save, saving] = useSaveChangeMutation();
  const [discard] = useDeleteChangeMutation();
  const [issue] = useIssueChangeMutation();
  const base = `/jobs/${encodeURIComponent(view.job)}/changes`;
  /** Carries it out; false where it was refused. */
  const attempt = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      return true;
    } catch (error) {
      setRefused(faultOf(error));
      return false;
    }
  };
  const saveDraft = async (): Promise<boolean> => {
    const count = read.faults.size;
    setAsked(true);
    setRefused(null);
    if (count > 0) {
      const message = `${count} ${count === 1 ? 'field needs' : 'fields need'} attention; see the notes beside them.`;
      setRefused({ message, faults: [] });
      return false;
    }
    return attempt(async () => {
      if (view.version === 0) await create({ job: view.job, body: read.input }).unwrap();
      else await save({ job: view.job, change: view.number, body: read.input }).unwrap();
      saved();
      toast(`${read.input.number} saved`);
      void navigate(keep(`${base}/${encodeURIComponent(read.input.number)}`), { replace: true });
    });
  };
  return {
    saveDraft,
    saving: saving.isLoading || creating.isLoading,
    deleteDraft: () =>
      attempt(async () => {
        await discard({ job: view.job, change: view.number }).unwrap();
        void navigate(keep(base));
      }),
    issueDraft: (typedDay: string) =>
      attempt(async () => {
        const on = readDate(typedDay, month);
        if (!on) return setRefused({ message: 'Issued on: enter a date, e.g. 30 Apr 2031', faults: [] });
        if (changed && !(await saveDraft())) return;
        await issue({ job: view.job, change: read.input.number, body: { on } }).unwrap();
        toast(`${read.input.number} is issued: ${exact(read.price)} asked for`);
      }),
  };
}
