import { useSyncExternalStore } from 'react';

/** Below so many pixels a window is that of a phone: what does not fit stands one below the other. */
export const PHONE = 640;

/** Whether the window is narrower than so many pixels, also when it is made so. */
export function useNarrowWindow(below: number): boolean {
  return useSyncExternalStore(onResize, () => window.innerWidth < below);
}

function onResize(changed: () => void): () => void {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
}
