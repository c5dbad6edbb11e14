import { useAddDraftMutation, useSaveDraftMutation } from '../../../ground/api/api';
import { useEffect, useRef, useState } from 'react';
import { type JobForm } from './readJob';

const DRAFT_PAUSE = 900;

/** Saves the form as a draft a moment after each change. */
export function useDraft(form: JobForm, startId: number | null) {
  const id = useRef(startId);
  const finished = useRef(false);
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const [savedAt, setSavedAt] = useState<string | null>(null);
  const [add] = useAddDraftMutation();
  const [save] = useSaveDraftMutation();
  const unsaved = useRef<JobForm | null>(null);
  const keep = useRef(() => {
    saving.current = saving.current.then(async () => {
      const content = unsaved.current;
      if (finished.current || content === null) return;
      unsaved.current = null;
      const body = { content: content as unknown as Record<string, unknown> };
      const saved = await (id.current === null ? add({ body }) : save({ id: id.current, body })).unwrap().catch(() => null);
      if (saved) id.current = saved.id;
      else unsaved.current ??= content;
      setSavedAt(saved ? new Date().toLocaleTimeString('en-GB', { timeStyle: 'short' }) : null);
    });
  });
  const first = useRef(form);
  useEffect(() => {
    if (form === first.current) return;
    unsaved.current = form;
    const timer = setTimeout(keep.current, DRAFT_PAUSE);
    return () => clearTimeout(timer);
  }, [form]);
  // What was typed last is saved when the page is left.
  useEffect(() => () => keep.current(), []);
  return {
    id,
    savedAt,
    settle: async () => {
      finished.current = true;
      await saving.current;
    },
  };
}
