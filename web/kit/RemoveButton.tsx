import { X } from 'lucide-react';

interface RemoveProps {
  /** What it takes away, as it is read out. */
  label: string;
  onRemove: () => void;
  className?: string;
  /** −1 where the keyboard has another way. */
  tabIndex?: number;
}

/** Takes one of a list away. */
export function RemoveButton({ label, onRemove, className = '', tabIndex }: RemoveProps) {
  return (
    <button
      type="button"
      tabIndex={tabIndex}
      className={`button bare ${className}`}
      aria-label={label}
      title={label}
      onClick={onRemove}
    >
      <X size={14} aria-hidden="true" />
    </button>
  );
}
