import { useEffect, useRef, useState } from 'react';

interface SureProps {
  /** What it does: "Delete draft". */
  children: string;
  onSure: () => void;
  /** Told whether it asks, so that the page can say what would be lost. */
  onAsked?: (asked: boolean) => void;
  disabled?: boolean;
  className?: string;
}

/** How long the question stands. */
const WAITS = 8000;

/** Does what cannot be undone at its second press: the first one asks. Left, or left alone for a while, it asks again. */
export function SureButton({ children, onSure, onAsked, disabled, className = 'button bare' }: SureProps) {
  const [asked, setAsked] = useState(false);
  const told = useRef(onAsked);
  told.current = onAsked;
  useEffect(() => told.current?.(asked), [asked]);
  useEffect(() => {
    if (!asked) return;
    const timer = setTimeout(() => setAsked(false), WAITS);
    return () => clearTimeout(timer);
  }, [asked]);
  const press = () => {
    setAsked(!asked);
    if (asked) onSure();
  };
  return (
    <button
      type="button"
      className={asked ? 'button danger' : className}
      disabled={disabled}
      onClick={press}
      onBlur={() => setAsked(false)}
    >
      {asked ? `${children} permanently?` : children}
    </button>
  );
}
