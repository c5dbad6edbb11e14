import { useSyncExternalStore } from 'react';

/** Whether the window is narrower than so many pixels, also when it is made so. */
export function useNarrowWindow(below: number): boolean {
  return useSyncExternalStore(onResize, () => window.innerWidth < below);
}

function onResize(changed: () => void): () => void {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
}
