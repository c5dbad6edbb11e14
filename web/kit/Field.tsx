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
      {(fault || hint) && (
        <span id={`${id}-said`} className={fault ? 'fault' : 'note text-[12.5px]'}>
          {fault ?? hint}
        </span>
      )}
    </div>
  );
}
