import { faultsUnder } from '../../kit/typed/codecs';
import { isFilled } from '../../kit/grid/filledRow';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../kit/toast';
import type { TypedChange } from '../../../wire/changes';
import type { Lists } from '../../../wire/company';
import type { EstimateView } from '../../../wire/jobs';
import {
  useAddChangeMutation,
  useAgreeChangeMutation,
  useDeleteChangeMutation,
  useIssueChangeMutation,
  useSaveChangeMutation,
} from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { ROW_KEY, type GridRow } from '../../kit/grid/gridTypes';
import { useDraftFacts } from '../../kit/draft/useDraftFacts';
import { useDraftParts } from '../../kit/draft/useDraftParts';
import { unknownCodes } from '../../ground/costCodes/unknownCodes';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { changeCodecs, formOf, readChange, type ChangeForm, type ChangeSides, type ReadChange } from './changeForm';

export interface DraftSource {
  view: TypedChange;
  lists: Lists;
  /** The job's SOV lines and cost lines. */
  spent: EstimateView;
  /** Reads the change again, where somebody saved another version of it. */
  onStale: () => void;
}
export type ChangeDraftState = ReturnType<typeof useChangeDraft>;

/** What is typed of a draft change, how it reads, and what can be done with it. */
export function useChangeDraft({ view, lists, spent, onStale }: DraftSource) {
  const { digits } = useCurrency();
  const { month } = useAsOf();
  const costCodes = useMemo(() => new Set(lists.costCodes.map((it) => it.code)), [lists]);
  const codecs = useMemo(() => changeCodecs({ digits, month, costCodes }), [digits, month, costCodes]);
  const start = useMemo(() => partsOf(formOf(view, codecs)), [view, codecs]);
  const [savedAs, setSavedAs] = useState(0);
  const version = Math.max(view.version, savedAs);
  const draft = useDraftParts({
    name: `change ${view.job}/${view.version === 0 ? 'new' : view.number}`,
    // A number somebody else took meanwhile is not held to, where nobody typed it.
    seen: view.version === 0 ? view.number : String(view.version),
    version: view.version,
    start,
  });
  const { parts, setParts } = draft;
  const row = parts.facts[0] ?? {};
  const facts = useCodecForm(codecs.facts, { ...formOf(view, codecs).facts, ...row }, { partOfPage: true });
  useDraftFacts(facts, row, (next) => setParts({ facts: [next] }));
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const sovLines = useMemo(() => new Set(spent.revenue.map((it) => it.line)), [spent]);
  const sides: ChangeSides = { price: parts.price, cost: parts.cost };
  const read = readChange({ facts: facts.text, ...sides }, version, codecs, sovLines);
  const faults = new Map([...read.faults, ...placed(refused?.faults ?? [], read)]);
  const typed = draft.isTyped();
  return {
    view,
    codecs,
    facts,
    sides,
    read,
    refused,
    setRefused,
    onStale,
    typed,
    notice: draft.notice,
    discard: draft.discard,
    changed: view.version === 0 || typed,
    setSide: (side: Partial<ChangeSides>) => setParts(side),
    unknownCodes: unknownCodes(
      sides.cost.map((it) => it.costCode),
      costCodes,
    ),
    /** It is saved as a version; 0: it is no draft any more, or one under another number. */
    saved: (as: number) => {
      if (as === 0) return draft.forget();
      draft.saved(as);
      setSavedAs(as);
    },
    /** The faults of one side, by row and column. */
    faultsIn: (part: 'price.' | 'cost.') => faultsUnder(faults, part),
    addRows: (rows: { price?: GridRow[]; cost: GridRow[] }) =>
      setParts({
        price: [...sides.price.filter(isFilled), ...(rows.price ?? [])],
        cost: [...sides.cost.filter(isFilled), ...rows.cost],
      }),
  };
}

const partsOf = ({ facts, price, cost }: ChangeForm) => ({ facts: [{ ...facts, [ROW_KEY]: 'facts' }], price, cost });

/** What the server refused by the place of a line, at the row of the grid the line came from. */
function placed(faults: ShownFault['faults'], { rowOf }: ReadChange): (readonly [string, string])[] {
  return faults.map(({ field, message }) => {
    const [side = '', line = '', column = ''] = field.split('.');
    const row = side === 'price' || side === 'cost' ? rowOf[side][Number(line)] : undefined;
    return [row === undefined ? field : `${side}.${row}.${column}`, message];
  });
}

/** Saves, issues and deletes a draft. What is refused is shown on the form, and what was typed stays. */
export function useDraftActions({ view, facts, read, changed, saved, setRefused, onStale }: ChangeDraftState) {
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
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
      if (fault.faults.some((it) => it.field === 'version')) onStale();
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
      const { number } = read.input;
      if (view.version === 0) await create({ job: view.job, body: read.input }).unwrap();
      const as = view.version === 0 ? null : await save({ job: view.job, change: view.number, body: read.input }).unwrap();
      saved(as && number === view.number ? as.version : 0);
      toast(`${read.input.number} saved`);
      void navigate(withMonth(`${base}/${encodeURIComponent(read.input.number)}`), { replace: true });
    });
  };
  return {
    saveDraft,
    saving: saving.isLoading || creating.isLoading,
    deleteDraft: () =>
      attempt(async () => {
        await discard({ job: view.job, change: view.number }).unwrap();
        saved(0);
        void navigate(withMonth(base));
      }),
    /** Raised, issued and approved at once. */
    agreeDraft: async (on: string, by: string) =>
      isRight() &&
      attempt(async () => {
        const was = view.version === 0 ? null : view.number;
        await agree({ job: view.job, body: { change: read.input, was, on, by } }).unwrap();
        saved(0);
        toast(`${read.input.number} is approved: ${exact(read.price)}`);
        void navigate(withMonth(`${base}/${encodeURIComponent(read.input.number)}`), { replace: true });
      }),
    issueDraft: (on: string) =>
      attempt(async () => {
        if (changed && !(await saveDraft())) return;
        await issue({ job: view.job, change: read.input.number, body: { on } }).unwrap();
        toast(`${read.input.number} is issued: ${exact(read.price)} asked for`);
      }),
  };
}
