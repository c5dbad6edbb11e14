import type { Saving } from './useEstimate';

/** Says whether what is typed is saved, and what somebody else saved meanwhile. */
export function SaveNote({ saving, faults }: { saving: Saving; faults: number }) {
  const { refused, isSaved, merged } = saving;
  const text =
    faults > 0
      ? `Not saved yet: ${faults} ${faults === 1 ? 'cell says' : 'cells say'} what is wrong.`
      : (refused ?? (isSaved ? 'Saved.' : 'Saving …'));
  return (
    <>
      <p className={`m-0 mt-1 text-[12.5px] ${refused !== null || faults > 0 ? 'fault' : 'note'}`} role="status">
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
