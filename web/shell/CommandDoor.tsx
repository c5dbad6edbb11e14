import { lazy, Suspense, useState, type ComponentType } from 'react';
import type { BoxProps } from './CommandBox';
import { COMMAND_FIELD, COMMAND_SHEET } from './commandLook';

let box: ComponentType<BoxProps> = lazy(async () => ({ default: await fetchBox() }));

async function fetchBox(): Promise<ComponentType<BoxProps>> {
  box = (await import('./CommandBox')).CommandBox;
  return box;
}

/** Fetches the command box before it is opened: the key that is held for it is pressed a moment before the letter. */
export function reachForCommands(): void {
  // Where that fails it is fetched again when it is opened.
  fetchBox().catch(() => undefined);
}

/** The command box, fetched when it is first reached for. What is typed meanwhile is typed into it. */
export function CommandDoor({ onOpen }: { onOpen: (open: boolean) => void }) {
  const [typed, setTyped] = useState('');
  // The one there is when it opens, for as long as it is open: another would lose the focus.
  const [Box] = useState(() => box);
  return (
    <Suspense
      fallback={
        <div className={COMMAND_SHEET}>
          <input
            autoFocus
            aria-label="Go to"
            className={COMMAND_FIELD}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
        </div>
      }
    >
      <Box typed={typed} onTyped={setTyped} onOpen={onOpen} />
    </Suspense>
  );
}
