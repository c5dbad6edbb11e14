import { useCallback, useEffect, useRef, useState } from 'react';

/** How long nothing is typed before it is saved. */
const PAUSE = 700;
/** Saves one after another while somebody types on. */
const IN_A_ROW = 20;

/**
 * Saves what is typed a moment after each change, one save at a time, each over the last: what is typed while one is under way goes
 * with the next. `body`: what is to be saved, as text; null while it cannot be. `there`: what is saved, as far as the page was shown.
 * `save` throws what is refused.
 */
export function useSaveQueue(body: string | null, there: string | null, save: (body: string) => Promise<void>) {
  const [failed, setFailed] = useState<unknown>(null);
  const [savedText, setSavedText] = useState(there);
  const latest = useRef({ body, save });
  latest.current = { body, save };
  const saved = useRef(there);
  useEffect(() => {
    saved.current = there;
    setSavedText(there);
  }, [there]);
  const running = useRef<Promise<void> | null>(null);

  const run = useCallback(async (): Promise<void> => {
    for (let saves = 0; latest.current.body !== null && latest.current.body !== saved.current; saves++) {
      const sent = latest.current.body;
      try {
        await latest.current.save(sent);
        saved.current = sent;
        setSavedText(sent);
        setFailed(null);
      } catch (error) {
        setFailed(error);
        return;
      }
      // Whoever types faster than the line waits for a pause.
      if (saves >= IN_A_ROW) return;
    }
  }, []);

  /** Saves all that is typed, after what is under way; true where nothing is left to be saved. */
  const settle = useCallback(async (): Promise<boolean> => {
    while (running.current) await running.current;
    running.current = run().finally(() => (running.current = null));
    await running.current;
    return latest.current.body !== null && latest.current.body === saved.current;
  }, [run]);

  useEffect(() => {
    const timer = setTimeout(() => void settle(), PAUSE);
    return () => clearTimeout(timer);
    // A newer version of what is saved is saved over as well.
  }, [body, there, settle]);
  // What was typed last is saved when the page is left.
  useEffect(() => () => void settle(), [settle]);

  return {
    settle,
    failed,
    /** Nothing is typed that is not saved. */
    isSaved: body !== null && body === savedText,
  };
}
