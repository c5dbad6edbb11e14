import { lazy, Suspense, useState } from 'react';
import { COMMAND_FIELD, COMMAND_SHEET } from './commandLook';

const CommandBox = lazy(async () => ({ default: (await import('./CommandBox')).CommandBox }));

/** The command box, fetched when it is first opened. What is typed meanwhile is typed into it. */
export function CommandDoor({ onOpen }: { onOpen: (open: boolean) => void }) {
  const [typed, setTyped] = useState('');
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
      <CommandBox typed={typed} onTyped={setTyped} onOpen={onOpen} />
    </Suspense>
  );
}
