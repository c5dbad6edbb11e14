import { cloneElement, useId, type ReactElement } from 'react';

/** A labelled input with its fault beneath it. */
export function Field({
  label,
  fault,
  hint,
  children,
  className = '',
}: {
  label: string;
  fault?: string;
  hint?: string;
  children: ReactElement<Record<string, unknown>>;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={`field ${className}`}>
      <label htmlFor={id}>{label}</label>
      {cloneElement(children, {
        id,
        'aria-invalid': fault ? true : undefined,
        'aria-describedby': fault || hint ? `${id}-said` : undefined,
        className: `box ${(children.props.className as string) ?? ''}`,
      })}
      {/* Always there, so that a fault is read out when it comes. */}
      <span
        id={`${id}-said`}
        role={fault ? 'alert' : undefined}
        aria-live="polite"
        className={fault ? 'fault' : hint ? 'note text-[12.5px]' : 'sr-only'}
      >
        {fault ?? hint}
      </span>
    </div>
  );
}
