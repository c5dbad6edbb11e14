import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { ImportPreview, ImportTotals } from '../../../wire/book';

interface SeenProps {
  preview: ImportPreview;
  busy: boolean;
  /** `skip`: without the costs that are there already. */
  onTake: (skip: boolean) => void;
  onLeave: () => void;
}

/** What an import would bring: by file, what the books come to before and after, and costs that are there already. */
export function ImportSeen({ preview, busy, onTake, onLeave }: SeenProps) {
  const { files, faults, more, identical } = preview;
  const exact = (cents: number) => displayExact(cents, preview.after?.digits ?? 2);
  const wrong = faults.length > 0;
  const rows = files.reduce((sum, it) => sum + it.rows, 0);
  const entries = `${identical.count.toLocaleString('en-GB')} ${identical.count === 1 ? 'cost' : 'costs'}`;
  return (
    <section aria-label="What the import would bring" className="sheet mt-3 px-4 py-3">
      {wrong && <Faults faults={faults} more={more} allThere={allThere(files)} />}
      {!wrong && <Totals before={preview.before} after={preview.after} />}
      {identical.count > 0 && (
        <div role="alert" className="my-3 border-l-4 border-[var(--over)] bg-[var(--band)] px-3 py-2">
          <b>
            {entries}, {exact(identical.amount)}, identical to costs that already exist
          </b>
          <ul className="m-0 list-none p-0">
            {identical.first.map((it, i) => (
              <li key={i}>
                Job {it.job}, {displayDate(it.dated)}, {it.party} {it.reference}: {exact(it.amount)}
              </li>
            ))}
            {identical.count > identical.first.length && <li>and {identical.count - identical.first.length} more</li>}
          </ul>
        </div>
      )}
      <Files files={files} />
      <div className="mt-3 flex flex-wrap gap-3">
        {!wrong && identical.count > 0 && (
          <button type="button" className="button main" disabled={busy} onClick={() => onTake(true)}>
            Skip duplicates
          </button>
        )}
        {!wrong && (
          <button
            type="button"
            className={identical.count > 0 ? 'button' : 'button main'}
            disabled={busy || rows === 0}
            onClick={() => onTake(false)}
          >
            {busy
              ? 'Importing …'
              : identical.count > 0
                ? 'Import all, including duplicates'
                : `Import ${rows.toLocaleString('en-GB')} ${rows === 1 ? 'row' : 'rows'}`}
          </button>
        )}
        <button type="button" className="button bare" onClick={onLeave}>
          {wrong ? 'Close' : 'Import nothing'}
        </button>
      </div>
    </section>
  );
}

function Files({ files }: { files: ImportPreview['files'] }) {
  if (files.length === 0) return <p className="m-0">No rows in these files.</p>;
  return (
    <div className={files.length > 12 ? 'scroll mt-3 max-h-[320px]' : 'mt-3'} tabIndex={files.length > 12 ? 0 : undefined}>
      <table className="ledger">
        <thead>
          <tr>
            <th>File</th>
            <th className="num">Rows</th>
            <th className="num">New</th>
            <th className="num">Already there</th>
          </tr>
        </thead>
        <tbody>
          {files.map(({ name, rows, there }) => (
            <tr key={name}>
              <td>{name.replaceAll('_', ' ')}</td>
              <td className="num">{rows.toLocaleString('en-GB')}</td>
              <td className="num">{(rows - (there ?? 0)).toLocaleString('en-GB')}</td>
              <td className="num">
                {there === null ? <span className="note">not compared</span> : there === 0 ? '–' : there.toLocaleString('en-GB')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Whether whatever has a key of its own in these files is in the books. */
function allThere(files: ImportPreview['files']): boolean {
  const compared = files.filter((it) => it.there !== null);
  return compared.length > 0 && compared.every((it) => it.there === it.rows);
}

function Faults({ faults, more, allThere }: { faults: readonly string[]; more: number; allThere: boolean }) {
  const all = faults.length + more;
  return (
    <div role="alert" className="mt-3">
      {allThere && <p className="m-0 mb-1">These rows already exist. An import adds what is new.</p>}
      <p className="fault m-0">
        {all.toLocaleString('en-GB')} {all === 1 ? 'fault' : 'faults'}; nothing can be imported until{' '}
        {all === 1 ? 'it is' : 'they are'} corrected in the files
      </p>
      <ol className="scroll m-0 mt-1 max-h-[220px] list-none p-0 text-[13px]" tabIndex={0}>
        {faults.map((fault, i) => (
          <li key={i} className="border-b border-[var(--hair)] py-[2px]">
            {fault}
          </li>
        ))}
      </ol>
      {more > 0 && <p className="note">and {more.toLocaleString('en-GB')} more.</p>}
    </div>
  );
}

const FIGURES = [
  ['jobs', 'Jobs in the schedule'],
  ['contractSum', 'Contract sum'],
  ['cost', 'Cost to date'],
  ['earned', 'Earned revenue'],
  ['billed', 'Billed to date'],
] as const;

function Totals({ before, after }: { before: ImportTotals | null; after: ImportTotals | null }) {
  if (!after) return null;
  const exact = (cents: number) => displayExact(cents, after.digits);
  const text = (totals: ImportTotals | null, key: (typeof FIGURES)[number][0]) =>
    totals === null ? '–' : key === 'jobs' ? String(totals.jobs) : exact(totals[key]);
  return (
    <table className="ledger mt-3">
      <thead>
        <tr>
          <th>The books</th>
          <th className="num">{before ? `Before, at ${displayDate(before.asOf)}` : 'Before'}</th>
          <th className="num">After, at {displayDate(after.asOf)}</th>
        </tr>
      </thead>
      <tbody>
        {FIGURES.map(([key, title]) => (
          <tr key={key}>
            <td>{title}</td>
            <td className="num">{text(before, key)}</td>
            <td className="num">{text(after, key)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={3}>{after.ties ? 'The books tie afterwards' : 'The books do not tie afterwards'}</td>
        </tr>
      </tfoot>
    </table>
  );
}
