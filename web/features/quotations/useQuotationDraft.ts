import { faultsUnder } from '../../kit/typed/codecs';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { QuotationView } from '../../../wire/quotations';
import { useDeleteQuotationMutation, useSaveQuotationMutation } from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { useAttempt } from '../../ground/useAttempt';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { useTyped, type OnTyped } from '../../kit/StableForm';
import { formOf, quotationCodecs, readQuotation, type QuotationRows } from './quotationForm';

export interface DraftSource {
  job: string;
  view: QuotationView;
  onTyped: OnTyped;
}
export type QuotationDraft = ReturnType<typeof useQuotationDraft>;

/** What is typed of a draft quotation, and how it is saved and deleted. */
export function useQuotationDraft({ job, view, onTyped }: DraftSource) {
  const { digits } = useCurrency();
  const { month } = useAsOf();
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const codecs = useMemo(() => quotationCodecs(digits, month), [digits, month]);
  const start = useMemo(() => formOf(view, codecs), [view, codecs]);
  const facts = useCodecForm(codecs.facts, start.facts, { partOfPage: true });
  const [rows, setRows] = useState<QuotationRows>(() => ({ alternates: start.alternates, payments: start.payments }));
  const { refused, setRefused, attempt } = useAttempt();
  const [save, { isLoading: saving }] = useSaveQuotationMutation();
  const [discard] = useDeleteQuotationMutation();
  const { faults, input } = readQuotation({ facts: facts.text, ...rows }, view.version, codecs);
  const changed = JSON.stringify({ facts: facts.text, ...rows }) !== JSON.stringify(start);
  useTyped(changed, onTyped);
  return {
    codecs,
    facts,
    rows,
    setRows,
    refused,
    changed,
    saving,
    faultsIn: (part: string) => faultsUnder(faults, part),
    /** False where something cannot be read, or the server refused it. */
    saveDraft: async (): Promise<boolean> => {
      facts.show(faults, 'facts.');
      const [fault] = faults.values();
      if (fault) {
        setRefused({ message: fault, faults: [] });
        return false;
      }
      const work = () => save({ job, quotation: view.number, body: input }).unwrap();
      const saved = await attempt(work, `Quotation ${view.number} saved`);
      if (saved) onTyped(false);
      return saved;
    },
    deleteDraft: async () => {
      if (!(await attempt(() => discard({ job, quotation: view.number }).unwrap()))) return;
      onTyped(false);
      void navigate(withMonth(`/jobs/${encodeURIComponent(job)}/estimates`));
    },
  };
}
