import { useEffect } from 'react';

/**
 * Where what has the focus goes, such as a form that was sent or a page that was left, the focus goes to the page rather than
 * nowhere: keys work on, and Tab begins at what is on it. Whoever takes the focus elsewhere in the same breath has it.
 */
export function useFocusStays(page: string): void {
  useEffect(() => {
    let last: Element | null = null;
    const remember = ({ target }: FocusEvent) => (last = target instanceof Element ? target : null);
    const lost = () => last !== null && !last.isConnected && document.activeElement === document.body;
    const watcher = new MutationObserver(() => {
      if (!lost()) return;
      setTimeout(() => {
        if (!lost()) return;
        last = null;
        document.getElementById(page)?.focus({ preventScroll: true });
      }, WAITS);
    });
    document.addEventListener('focusin', remember);
    watcher.observe(document.body, { childList: true, subtree: true });
    return () => {
      document.removeEventListener('focusin', remember);
      watcher.disconnect();
    };
  }, [page]);
}

/** A dialog that closes, or a page that opens, has given the focus on by then. */
const WAITS = 60;
