import type { CostPreview } from '../../../wire/costs';
import { PostingPreview } from '../../ground/PostingPreview';

/** What posting the batch would do, and what is unusual in it. */
export function BatchPreview({ preview, rowOf }: { preview: CostPreview; rowOf: readonly number[] }) {
  return <PostingPreview preview={preview} above={<Unusual lines={preview.unusual} rowOf={rowOf} />} />;
}

/** What has to be seen before it is posted; nothing of it is refused. */
function Unusual({ lines, rowOf }: { lines: CostPreview['unusual']; rowOf: readonly number[] }) {
  if (lines.length === 0) return null;
  return (
    <div role="alert" className="mb-3 border-l-4 px-3 py-2 border-[var(--over)] bg-[var(--band)]">
      <b>Is this right?</b>
      <ul className="m-0 list-none p-0">
        {lines.map((it) => (
          <li key={`${it.line} ${it.field}`}>
            Row {(rowOf[it.line] ?? it.line) + 1}: {it.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
