import { useCallback, useEffect, useMemo, useRef, type SetStateAction } from 'react';
import { useDispatch } from 'react-redux';
import { present } from '../../../../core/errors/known';
import type { EstimateContent } from '../../../../core/estimates/estimate';
import { LinePricer } from '../../../../core/estimates/linePricer';
import { stableText } from '../../../../core/lists/stableText';
import { PriceList } from '../../../../core/prices/buildUp';
import type { EstimateInput, EstimateView } from '../../../../wire/estimates';
import type { PriceListView } from '../../../../wire/prices';
import { api, useSaveEstimateMutation } from '../../../ground/api/api';
import type { AppDispatch } from '../../../ground/api/store';
import { faultOf, isConflict } from '../../../ground/faults';
import { useDraftParts } from '../../../kit/draft/useDraftParts';
import { useSaveQueue } from '../../../kit/draft/useSaveQueue';
import { useUnsaved } from '../../../kit/unsaved';
import { useHistory } from '../../../kit/useHistory';
import { formOf, readEstimate, type EstimateForm, type FormContext } from './estimateForm';
import { firstPartsOf, formOfParts, partsOf, renamed, rowTitle, savedNames } from './estimateParts';

/** What became of saving it, shown beneath the lines. */
export interface Saving {
  isSaved: boolean;
  /** Why it was refused. */
  refused: string | null;
  /** What somebody else saved meanwhile, and how it was brought together with what was typed here. */
  merged: { who: string; at: string; taken: string[]; clashes: string[] } | null;
}

export function contentOf(view: EstimateView): EstimateContent {
  const { name, lines, typeMarkups, sectionMarkups, overhead, profit, rounding } = view;
  return { name, lines, typeMarkups, sectionMarkups, overhead, profit, rounding };
}

function inputOf(content: EstimateContent): Omit<EstimateInput, 'version'> {
  return {
    name: content.name,
    overhead: content.overhead,
    profit: content.profit,
    rounding: content.rounding,
    typeMarkups: Object.entries(content.typeMarkups).map(([costType, rate]) => ({
      costType: costType as 'labour',
      rate: present(rate),
    })),
    sectionMarkups: Object.entries(content.sectionMarkups).map(([section, rate]) => ({ section, rate })),
    lines: content.lines.map((line) => ({ ...line, parts: [...line.parts] })),
  };
}

/** The draft as a form: rows by key, kept in this browser until they are saved. */
function useForm(view: EstimateView, digits: number, onElsewhere: () => void) {
  const start = useMemo(() => firstPartsOf(formOf(contentOf(view), digits)), [view, digits]);
  const draft = useDraftParts({
    name: `estimate ${view.job}/${view.number}`,
    seen: String(view.version),
    version: view.version,
    start,
    onElsewhere,
  });
  const { parts, setParts } = draft;
  const form = useMemo(() => formOfParts(parts), [parts]);
  const latest = useRef({ form, setParts });
  latest.current = { form, setParts };
  const setForm = useCallback((next: SetStateAction<EstimateForm>) => {
    const now = latest.current;
    now.form = typeof next === 'function' ? next(now.form) : next;
    now.setParts(partsOf(now.form));
  }, []);
  return { draft, form, setForm, latest };
}

/**
 * An estimate as it is typed: priced at every change, saved on the server a moment after. Where somebody else saved it meanwhile, both
 * are brought together and it is said. `onStale`: reads it again.
 */
export function useEstimate(
  view: EstimateView,
  book: PriceListView,
  context: Omit<FormContext, 'buildUps'>,
  onStale: () => void,
) {
  const { digits, costCodes } = context;
  const typed = useForm(view, digits, onStale);
  const { draft, form, setForm } = typed;
  const history = useHistory(form, setForm);
  const prices = useMemo(() => {
    const today = new PriceList(book.items, book.buildUps);
    const own = new Map(view.prices);
    return {
      today,
      of: new Map([...book.buildUps.map((it) => [it.code, own.get(it.code) ?? today.unitShares(it.code)] as const), ...own]),
    };
  }, [book, view.prices]);
  const full = useMemo<FormContext>(() => ({ digits, costCodes, buildUps: prices.of }), [digits, costCodes, prices]);
  const read = useMemo(() => readEstimate(form, full), [form, full]);
  const pricer = useMemo(() => new LinePricer(digits), [digits]);
  const priced = useMemo(() => pricer.price({ ...read.content, prices: prices.of }), [pricer, read.content, prices]);
  const body = useMemo(() => (read.faults.size > 0 ? null : stableText(inputOf(read.content))), [read]);
  const { settle, saving } = useSaving(view, typed, body, onStale);
  // What cannot be saved as it stands is lost on another machine: whoever leaves is asked.
  useUnsaved(draft.changed && body === null);
  return { form, setForm, history, read, priced, prices: prices.of, book: prices.today, saving, settle, forget: draft.forget };
}

/** Saves it a moment after each change, each save over the last. */
function useSaving(view: EstimateView, { draft, latest }: ReturnType<typeof useForm>, body: string | null, onStale: () => void) {
  const [save] = useSaveEstimateMutation();
  const version = useRef(view.version);
  version.current = Math.max(version.current, view.version);
  const there = useMemo(() => stableText(inputOf(contentOf(view))), [view]);
  const { settle, failed, isSaved } = useSaveQueue(body, there, async (text) => {
    const sent = latest.current.form;
    const saved = await save({
      job: view.job,
      estimate: view.number,
      body: { ...(JSON.parse(text) as Omit<EstimateInput, 'version'>), version: version.current },
    })
      .unwrap()
      .catch((error: unknown) => {
        if (isConflict(error)) onStale();
        throw error;
      });
    version.current = saved.version;
    // Rows are called from now on what they are called wherever the estimate is read.
    const names = savedNames(sent);
    draft.saved(saved.version, partsOf(renamed(sent, names)));
    draft.rewrite(partsOf(renamed(latest.current.form, names)));
  });
  const dispatch = useDispatch<AppDispatch>();
  // Other pages read it again once this one is left.
  useEffect(() => () => void settle().then(() => dispatch(api.util.invalidateTags(['books']))), [settle, dispatch]);
  const { taken, clashes } = draft.merged;
  const titles = (keys: readonly string[]) => [...new Set(keys.map(rowTitle))];
  const saving: Saving = {
    isSaved,
    refused: failed === null || isConflict(failed) ? null : faultOf(failed).message,
    merged:
      draft.notice === null || taken.length + clashes.length === 0
        ? null
        : { who: view.savedBy, at: view.savedAt, taken: titles(taken), clashes: titles(clashes) },
  };
  return { settle, saving };
}
