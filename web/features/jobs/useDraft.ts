import { useEffect, useRef, useState } from 'react';
import { useSaveDraftMutation } from './api';
import { type JobForm } from './readJob';

const DRAFT_PAUSE = 900;

/** Keeps the form as a draft a moment after each change. */
export function useDraft(form: JobForm, start: JobForm, startId: number | null) {
  const id = useRef(startId);
  const finished = useRef(false);
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const [savedAt, setSavedAt] = useState<string | null>(null);
  const [save] = useSaveDraftMutation();
  useEffect(() => {
    if (form === start) return;
    const timer = setTimeout(() => {
      saving.current = saving.current.then(async () => {
        if (finished.current) return;
        const saved = await save({ id: id.current, content: form as unknown as Record<string, unknown> })
          .unwrap()
          .catch(() => null);
        if (saved) id.current = saved.id;
        setSavedAt(saved ? new Date().toLocaleTimeString('en-GB', { timeStyle: 'short' }) : null);
      });
    }, DRAFT_PAUSE);
    return () => clearTimeout(timer);
  }, [form, start, save]);
  return {
    id,
    savedAt,
    settle: async () => {
      finished.current = true;
      await saving.current;
    },
  };
}
