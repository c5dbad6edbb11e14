import { useEffect, useRef } from 'react';
import type { JobBeginning } from '../../../../wire/jobs';
import { useJobBeginningQuery } from '../../../ground/api/api';
import { beginningAsTyped, filledAnew } from './beginJob';
import type { JobForm } from './readJob';
import type { JobFactsForm } from './useJobForm';

/**
 * Fills a new job with what its client's last job and its kind say, whenever another client or kind is chosen. What was typed stays: a
 * field is filled anew only where it still says what it was filled with.
 */
export function useBeginning(
  facts: JobFactsForm,
  form: JobForm,
  setForm: (change: (before: JobForm) => JobForm) => void,
): JobBeginning | undefined {
  const { client = '', kind = '' } = form.facts;
  const { data } = useJobBeginningQuery({ client, kind }, { refetchOnMountOrArgChange: true });
  const filled = useRef<JobBeginning | null>(null);
  const latest = useRef({ facts, form, setForm });
  latest.current = { facts, form, setForm };
  useEffect(() => {
    if (!data || filled.current === data) return;
    const before = filled.current;
    filled.current = data;
    // What was typed before this page was opened was filled by this very beginning.
    if (!before) return;
    const now = latest.current;
    now.facts.fill(filledAnew(now.form.facts, beginningAsTyped(before), beginningAsTyped(data)));
    const own = JSON.stringify(now.form.checklist ?? []);
    if (own === JSON.stringify(before.checklist) && own !== JSON.stringify(data.checklist))
      now.setForm((form) => ({ ...form, checklist: data.checklist }));
  }, [data]);
  return data;
}
