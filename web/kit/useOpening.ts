import { useEffect, useRef, useState, type KeyboardEvent } from 'react';

/** Something that a button opens on the page: Esc closes it, and closed, the focus is on the button again. */
export function useOpening() {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const returns = useRef(false);
  useEffect(() => {
    if (open || !returns.current) return;
    returns.current = false;
    button.current?.focus();
  }, [open]);
  const close = () => {
    returns.current = true;
    setOpen(false);
  };
  return {
    open,
    button,
    close,
    show: () => setOpen(true),
    /** Esc that closed a list or a calendar within leaves it open. */
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) close();
    },
  };
}
