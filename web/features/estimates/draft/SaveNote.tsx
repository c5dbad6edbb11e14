import type { SaveState } from './useEstimate';

/** Says whether what is typed is saved, and what somebody else saved meanwhile. */
export function SaveNote({ keeping, faults }: { keeping: SaveState; faults: number }) {
  const { merged } = keeping;
  const text = {
    kept: 'Saved.',
    typing: 'Saving …',
    faulty: `Not saved yet: ${faults} ${faults === 1 ? 'cell says' : 'cells say'} what is wrong.`,
    refused: keeping.message,
  }[faults > 0 ? 'faulty' : keeping.state];
  return (
    <>
      <p className={`m-0 mt-1 text-[12.5px] ${keeping.state === 'refused' || faults > 0 ? 'fault' : 'note'}`} role="status">
        {text}
      </p>
      {merged && (
        <p role="alert" className="my-1 border-l-4 px-3 py-1 border-[var(--over)] bg-[var(--warn-soft)]">
          {merged.who} saved this estimate at {merged.at.slice(11, 16)} while you had it open.{' '}
          {merged.taken.length > 0 && `Taken over from theirs: ${merged.taken.join(', ')}. `}
          {merged.clashes.length > 0 && `You both changed ${merged.clashes.join(', ')}; your version stands.`}
        </p>
      )}
    </>
  );
}
