import { faultsUnder } from '../../kit/typed/codecs';
import { isFilled } from '../../kit/grid/filledRow';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { ChangeView } from '../../../wire/changes';
import type { Lists } from '../../../wire/company';
import type { EstimateView } from '../../../wire/jobs';
import {
  useAddChangeMutation,
  useAgreeChangeMutation,
  useDeleteChangeMutation,
  useIssueChangeMutation,
  useSaveChangeMutation,
} from '../../ground/api/api';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import type { GridRow } from '../../kit/grid/gridTypes';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { changeCodecs, formOf, readChange, type ChangeSides, type ReadChange } from './changeForm';

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
  const codecs = useMemo(
    () => changeCodecs({ digits, month, costCodes: new Set(lists.costCodes.map((it) => it.code)) }),
    [digits, month, lists],
  );
  const start = useMemo(() => formOf(view, codecs), [view, codecs]);
  const facts = useCodecForm(codecs.facts, start.facts, { partOfPage: true });
  const [sides, setSides] = useState<ChangeSides>(() => ({ price: start.price, cost: start.cost }));
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const sovLines = useMemo(() => new Set(spent.revenue.map((it) => it.line)), [spent]);
  const read = readChange({ facts: facts.text, ...sides }, view.version, codecs, sovLines);
  const typed = facts.changed || JSON.stringify([sides.price, sides.cost]) !== JSON.stringify([start.price, start.cost]);
  useTyped(typed, onTyped);
  const faults = new Map([...read.faults, ...placed(refused?.faults ?? [], read)]);
  return {
    ...{ view, codecs, facts, sides, setSides, read, refused, setRefused },
    changed: view.version === 0 || typed,
    saved: () => onTyped(false),
    /** The faults of one side, by row and column. */
    faultsIn: (part: 'price.' | 'cost.') => faultsUnder(faults, part),
    addRows: (rows: { price?: GridRow[]; cost: GridRow[] }) =>
      setSides((before) => ({
        price: [...before.price.filter(isFilled), ...(rows.price ?? [])],
        cost: [...before.cost.filter(isFilled), ...rows.cost],
      })),
  };
}

/** What the server refused by the place of a line, at the row of the grid the line came from. */
function placed(faults: ShownFault['faults'], { rowOf }: ReadChange): (readonly [string, string])[] {
  return faults.map(({ field, message }) => {
    const [side = '', line = '', column = ''] = field.split('.');
    const row = side === 'price' || side === 'cost' ? rowOf[side][Number(line)] : undefined;
    return [row === undefined ? field : `${side}.${row}.${column}`, message];
  });
}

/** Saves, issues and deletes a draft. What is refused is shown on the form, and what was typed stays. */
export function useDraftActions({ view, facts, read, changed, saved, setRefused }: ChangeDraftState) {
  const { exact } = useCurrency();
  const keep = useKeepMonth();
  const navigate = useNavigate();
  const [create, creating] = useAddChangeMutation();
  const [save, saving] = useSaveChangeMutation();
  const [discard] = useDeleteChangeMutation();
  const [issue] = useIssueChangeMutation();
  const [agree] = useAgreeChangeMutation();
  const base = `/jobs/${encodeURIComponent(view.job)}/changes`;
  /** Carries it out; false where it was refused. */
  const attempt = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      return true;
    } catch (error) {
      const fault = faultOf(error);
      setRefused(fault);
      facts.show(new Map(fault.faults.map((it) => [it.field, it.message])));
      return false;
    }
  };
  /** True where nothing that is typed is wrong; else it is shown. */
  const isRight = (): boolean => {
    const count = read.faults.size;
    facts.show(read.faults, 'facts.');
    setRefused(null);
    if (count === 0) return true;
    const message = `${count} ${count === 1 ? 'field needs' : 'fields need'} attention; go to a field to see why.`;
    setRefused({ message, faults: [] });
    return false;
  };
  const saveDraft = async (): Promise<boolean> => {
    if (!isRight()) return false;
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
        saved();
        void navigate(keep(base));
      }),
    /** Raised, issued and approved at once. */
    agreeDraft: async (on: string, by: string) =>
      isRight() &&
      attempt(async () => {
        const was = view.version === 0 ? null : view.number;
        await agree({ job: view.job, body: { change: read.input, was, on, by } }).unwrap();
        saved();
        toast(`${read.input.number} is approved: ${exact(read.price)}`);
        void navigate(keep(`${base}/${encodeURIComponent(read.input.number)}`), { replace: true });
      }),
    issueDraft: (on: string) =>
      attempt(async () => {
        if (changed && !(await saveDraft())) return;
        await issue({ job: view.job, change: read.input.number, body: { on } }).unwrap();
        toast(`${read.input.number} is issued: ${exact(read.price)} asked for`);
      }),
  };
}
