import { lazy, Suspense, useSyncExternalStore } from 'react';
import { anythingSaid, onSaid } from './toast';

const Toasts = lazy(async () => ({ default: (await import('./Toasts')).Toasts }));

/** Room for what is said on a page, once anything is. */
export function SaidCorner({ position = 'bottom-right' }: { position?: 'bottom-right' | 'top-center' }) {
  const any = useSyncExternalStore(onSaid, anythingSaid);
  return <Suspense>{any && <Toasts position={position} />}</Suspense>;
}
