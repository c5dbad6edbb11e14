import { useHistory } from '../../../kit/useHistory';
import { stableText } from '../../../../core/lists/stableText';
import { present } from '../../../../core/errors/known';
import { CALLS } from '../../../../wire/calls';
import { api, useSaveEstimateMutation } from '../../../ground/api/api';
import { readOnce } from '../../../ground/api/readOnce';
import type { AppDispatch } from '../../../ground/api/store';
import { useDispatch } from 'react-redux';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { LinePricer } from '../../../../core/estimates/linePricer';
import { mergeEstimates, type EstimateContent } from '../../../../core/estimates/merge';
import { PriceBook } from '../../../../core/prices/buildUp';
import type { EstimateInput, EstimateView } from '../../../../wire/estimates';
import type { PriceBookView } from '../../../../wire/prices';
import { faultOf } from '../../../ground/faults';
import { formOf, readEstimate, type EstimateForm, type FormContext } from './estimateForm';

const SAVE_PAUSE = 900;

/** What became of keeping it, shown beside the name. */
export interface SaveState {
  state: 'kept' | 'typing' | 'faulty' | 'refused';
  message: string;
  /** What somebody else saved meanwhile, and how it was brought together with what was typed here. */
  merged: { who: string; at: string; taken: string[]; clashes: string[] } | null;
}

export function contentOf(view: EstimateView): EstimateContent {
  const { name, lines, typeMarkups, sectionMarkups, overhead, profit, rounding } = view;
  return { name, lines, typeMarkups, sectionMarkups, overhead, profit, rounding };
}

function inputOf(content: EstimateContent, version: number): EstimateInput {
  return {
    version,
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

/**
 * An estimate as it is typed: priced at every change, saved on the server a moment after. Where somebody else saved it
 * meanwhile, theirs and mine are laid over each other and both are shown.
 */
export function useEstimate(view: EstimateView, book: PriceBookView, context: Omit<FormContext, 'buildUps'>) {
  const { digits, costCodes } = context;
  const [form, setForm] = useState<EstimateForm>(() => formOf(contentOf(view), digits));
  const history = useHistory(form, setForm);
  const prices = useMemo(() => {
    const today = new PriceBook(book.items, book.buildUps);
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
  const { keeping: saveState, settle } = useSaving(view, read.content, read.faults.size > 0, (content) =>
    setForm(formOf(content, digits)),
  );
  return { form, setForm, history, read, priced, prices: prices.of, book: prices.today, keeping: saveState, settle };
}

function useSaving(view: EstimateView, content: EstimateContent, faulty: boolean, onMerged: (content: EstimateContent) => void) {
  const at = useMemo(() => ({ job: view.job, estimate: view.number }), [view.job, view.number]);
  const base = useRef({ content: contentOf(view), version: view.version, text: stableText(contentOf(view)) });
  const [save] = useSaveEstimateMutation();
  const dispatch = useDispatch<AppDispatch>();
  const saved = useCallback(() => void dispatch(api.util.invalidateTags(['books'])), [dispatch]);
  const [keeping, setKeeping] = useState<SaveState>({ state: 'kept', message: '', merged: null });
  const latest = useRef({ content, faulty, onMerged });
  latest.current = { content, faulty, onMerged };
  const pending = useRef<Promise<boolean>>(Promise.resolve(true));

  const saveOnce = useCallback(async (): Promise<boolean> => {
    const { content: mine, faulty: wrong } = latest.current;
    const text = stableText(mine);
    if (text === base.current.text) return true;
    if (wrong) return false;
    try {
      const { version } = await save({ ...at, body: inputOf(mine, base.current.version) }).unwrap();
      base.current = { content: mine, version, text };
      setKeeping((before) => ({ ...before, state: 'kept', message: '' }));
      return true;
    } catch (error) {
      const fault = faultOf(error);
      if (!fault.faults.some((it) => it.field === 'version')) {
        setKeeping((before) => ({ ...before, state: 'refused', message: fault.message }));
        return false;
      }
      const theirs = await readOnce(CALLS.estimate, at);
      const { content: both, taken, clashes } = mergeEstimates(base.current.content, mine, contentOf(theirs));
      base.current = { content: contentOf(theirs), version: theirs.version, text: stableText(contentOf(theirs)) };
      latest.current.onMerged(both);
      latest.current = { ...latest.current, content: both };
      setKeeping({ state: 'typing', message: '', merged: { who: theirs.savedBy, at: theirs.savedAt, taken, clashes } });
      return saveOnce();
    }
  }, [at, save]);
  const saveNow = useCallback(() => (pending.current = pending.current.then(saveOnce, saveOnce)), [saveOnce]);

  useEffect(() => {
    if (stableText(content) === base.current.text) return;
    setKeeping((before) => ({ ...before, state: faulty ? 'faulty' : 'typing', message: '' }));
    const timer = setTimeout(() => void saveNow(), SAVE_PAUSE);
    return () => clearTimeout(timer);
  }, [content, faulty, saveNow]);
  // What was typed last is saved when the page is left, and other pages read it again.
  useEffect(() => () => void saveNow().then(() => saved()), [saveNow, saved]);
  return {
    keeping,
    /** Saves what is typed now; false where it cannot be. */
    settle: saveNow,
  };
}
