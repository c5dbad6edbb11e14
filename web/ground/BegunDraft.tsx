import { Link } from 'react-router';
import { readDraft } from '../kit/draft/storedDraft';
import { useWithMonth } from './asOf';

/** What the draft of a new job, and that of a new tender, is known by in this browser. */
export const NEW_JOB = 'new-job';
export const NEW_TENDER = 'new-tender';

/** A new job or tender that was begun in this browser and not set up. */
export function BegunDraft({ draft, to, one }: { draft: string; to: string; one: 'job' | 'tender' }) {
  const withMonth = useWithMonth();
  const facts = readDraft(draft)?.rows.find((it) => it.number !== undefined);
  if (!facts) return null;
  return (
    <p className="sheet mb-3 px-3 py-1">
      <span className="note">Begun in this browser:</span>{' '}
      <Link to={withMonth(to)}>{[facts.number, facts.name || `${one} without a name`].filter(Boolean).join(' ')}</Link>
    </p>
  );
}
