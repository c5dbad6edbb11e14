import { Check, ChevronDown, ChevronUp } from 'lucide-react';
import { Select } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { titled, type ChoiceProps } from './options';

interface ListProps<V extends string> extends ChoiceProps<V> {
  /** Pressed before this was there: it opens at once. */
  pressed: boolean;
  /** The focus was on the button this stands in for. */
  focused: boolean;
}

/** Radix keeps the empty text for "nothing chosen"; here "all" or "none" is a choice like any other. */
const EMPTY = '\u0000';
/** Longer lists are made when they are opened; shorter ones are there before, so that a typed letter chooses at once. */
const MADE_BEFORE = 40;

/** A choice with its list, which opens over the page, however near the edge it stands. Letters typed find the option. */
export function ChoiceList<V extends string>({
  value,
  options,
  onChange,
  pressed,
  focused,
  className = '',
  ...props
}: ListProps<V>) {
  const [open, setOpen] = useState(pressed);
  const trigger = useRef<HTMLButtonElement>(null);
  /** Of the moment it takes the button's place alone. */
  const takesFocus = useRef(focused && !pressed);
  useEffect(() => {
    if (takesFocus.current) trigger.current?.focus();
  }, []);
  return (
    <Select.Root
      value={value || EMPTY}
      open={open}
      onOpenChange={setOpen}
      onValueChange={(it) => onChange((it === EMPTY ? '' : it) as V)}
    >
      <Select.Trigger {...props} ref={trigger} className={`choice ${className}`}>
        <Select.Value>{titled(options, value)}</Select.Value>
        <ChevronDown size={14} aria-hidden="true" />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content position="popper" sideOffset={3} collisionPadding={8} className="pop choices">
          <Select.ScrollUpButton className="more">
            <ChevronUp size={14} aria-hidden="true" />
          </Select.ScrollUpButton>
          <Select.Viewport>
            {(open || options.length <= MADE_BEFORE) &&
              options.map((it) => {
                const [key, title] = typeof it === 'string' ? [it, it] : it;
                return (
                  <Select.Item key={key} value={key || EMPTY}>
                    <Select.ItemText>{title}</Select.ItemText>
                    <Select.ItemIndicator>
                      <Check size={13} aria-hidden="true" />
                    </Select.ItemIndicator>
                  </Select.Item>
                );
              })}
          </Select.Viewport>
          <Select.ScrollDownButton className="more">
            <ChevronDown size={14} aria-hidden="true" />
          </Select.ScrollDownButton>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
