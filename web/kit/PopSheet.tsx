import { Popover } from 'radix-ui';
import type { ComponentProps, ReactElement, ReactNode } from 'react';

interface Props {
  /** The button that opens it. */
  trigger: ReactElement;
  /** Where the page decides when it is open; else it is from the beginning, since it was reached for. */
  open?: boolean | undefined;
  onOpen?: ((open: boolean) => void) | undefined;
  /** How it lies and looks. */
  content: ComponentProps<typeof Popover.Content>;
  children: ReactNode;
}

/** A sheet over the page; Esc or a press outside closes it. */
export function PopSheet({ trigger, open, onOpen, content, children }: Props) {
  return (
    <Popover.Root defaultOpen open={open} onOpenChange={onOpen}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content {...content}>{children}</Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
