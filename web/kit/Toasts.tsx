import { useEffect } from 'react';
import { Toaster, toast } from 'sonner';
import { showWith } from './toast';

/** The corner in which things are said. */
export function Toasts({ position }: { position: 'bottom-right' | 'top-center' }) {
  useEffect(() => showWith(({ message, how }) => void toast(message, how)), []);
  return <Toaster position={position} toastOptions={{ unstyled: true, className: 'toast' }} />;
}
