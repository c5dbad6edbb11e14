import type { DraftNotice } from './useDraftRows';

const WORDS: Record<Exclude<DraftNotice, null>, string> = {
  merged: 'The saved version changed meanwhile. What you typed is still here, and the rest is up to date.',
  clashed: 'Somebody changed the same rows meanwhile. What you typed is still here; compare it before you send it.',
  unstored: 'This is more than this browser can store: send or save it before you leave the page.',
  'sent-elsewhere': 'This was sent, or emptied, in another window. What you typed only here is still shown.',
};

/** What became of a draft without the hands of whoever types it. */
export function DraftNotes({ notice }: { notice: DraftNotice }) {
  if (notice === null) return null;
  return (
    <p role="status" className="my-2 border-l-4 border-[var(--accent)] px-3 py-1">
      {WORDS[notice]}
    </p>
  );
}
