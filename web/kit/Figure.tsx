import type { ReactNode } from 'react';

/** A computed figure: shown in tabular numerals, and a door to its workings. */
export function Figure({
  children,
  label,
  onOpen,
  className = '',
}: {
  children: ReactNode;
  label: string;
  onOpen: () => void;
  className?: string;
}) {
  return (
    <button
      type="button"
      className={`fig ${className}`}
      title={`${label}: show its workings`}
      aria-label={`${label}: ${typeof children === 'string' ? children : ''}, show its workings`}
      onClick={onOpen}
    >
      {children}
    </button>
  );
}
