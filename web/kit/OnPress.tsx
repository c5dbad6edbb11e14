import { cloneElement, lazy, Suspense, useState, type ComponentProps, type ReactElement } from 'react';
import type { PopSheet } from './PopSheet';

const load = () => import('./PopSheet');
/** What opens over a page is fetched when somebody reaches for it: no first screen waits for it. */
const Opened = lazy(async () => ({ default: (await load()).PopSheet }));

type Props = Omit<ComponentProps<typeof PopSheet>, 'trigger'> & { trigger: ReactElement<ComponentProps<'button'>> };

/** A button with a sheet that it opens. */
export function OnPress({ trigger, ...sheet }: Props) {
  const [touched, setTouched] = useState(false);
  if (touched || sheet.open)
    return (
      <Suspense fallback={trigger}>
        <Opened trigger={trigger} {...sheet} />
      </Suspense>
    );
  return cloneElement(trigger, {
    'aria-haspopup': 'dialog',
    'aria-expanded': false,
    onPointerEnter: () => void load(),
    onFocus: () => void load(),
    onClick: () => {
      setTouched(true);
      sheet.onOpen?.(true);
    },
  });
}
