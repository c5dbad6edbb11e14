import type { ReactNode } from 'react';
import { OnPress } from './OnPress';

interface PopProps {
  /** What its button says. */
  button: ReactNode;
  disabled?: boolean;
  /** Why it is off. */
  title?: string;
  /** The edge of the button it lines up with. */
  align?: 'start' | 'end';
  /** Its button is a word in a line, not a button of its own. */
  inLine?: boolean;
  /** Width and padding. */
  className?: string;
  /** What the sheet is called, where its button does not say it. */
  label?: string;
  /** Where the page decides when it is open. */
  open?: boolean;
  onOpen?: (open: boolean) => void;
  children: ReactNode;
}

/** A small sheet that its button opens over the page; Esc or a press outside closes it. */
export function Pop({
  button,
  disabled,
  title,
  align = 'start',
  inLine = false,
  className = '',
  label,
  open,
  onOpen,
  children,
}: PopProps) {
  return (
    <OnPress
      open={open}
      onOpen={onOpen}
      trigger={
        <button type="button" className={inLine ? 'fig' : 'button'} disabled={disabled} title={title}>
          {button}
        </button>
      }
      content={{
        'aria-label': label ?? (typeof button === 'string' ? button.replace(/ …$/, '') : undefined),
        align,
        sideOffset: 4,
        collisionPadding: 8,
        className: `pop ${className || 'w-[320px] p-4'}`,
      }}
    >
      {children}
    </OnPress>
  );
}
