import { useContext, type ReactNode } from 'react';
import { InTable } from './table/InTable';

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
  const inTable = useContext(InTable);
  return (
    <button
      type="button"
      tabIndex={inTable ? -1 : undefined}
      className={`fig ${className}`}
      title={`${label}: show its workings`}
      aria-label={`${label}: ${typeof children === 'string' ? children : ''}, show its workings`}
      onClick={onOpen}
    >
      {children}
    </button>
  );
}
