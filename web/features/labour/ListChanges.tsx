import { LABOUR_LISTS, type LabourList, type ListChange, type ListRow } from '../../../core/labour/lists';
import type { Codecs } from '../../kit/form/codecSchema';
import type { GridColumn } from '../../kit/grid/gridTypes';

interface Props {
  list: LabourList;
  columns: readonly GridColumn[];
  codecs: Codecs;
  changes: readonly ListChange[];
}

/** What saving a list changes in it, row by row, before and after. */
export function ListChanges({ list, columns, codecs, changes }: Props) {
  const shown = (row: ListRow | null, key: string) => (row ? (codecs[key]?.format(row[key]) ?? '') : '');
  const written = (row: ListRow | null) =>
    columns
      .map(({ key, title }) => [title, shown(row, key)] as const)
      .filter(([, value]) => value !== '')
      .map(([title, value]) => `${title} ${value}`)
      .join(' · ');
  const title = (key: string) => columns.find((it) => it.key === key)?.title ?? key;
  const differences = (it: ListChange) =>
    it.columns.map((key) => `${title(key)} ${shown(it.was, key) || 'empty'} → ${shown(it.now, key) || 'empty'}`).join(' · ');
  if (changes.length === 0) return <p className="note mt-3">Nothing changes.</p>;
  return (
    <section aria-label="What changes" className="mt-4">
      <h2 className="mb-1">What changes</h2>
      <ul className="scroll m-0 max-h-[180px] list-none p-0" tabIndex={0}>
        {changes.map((it, i) => (
          <li key={i} className="hairline py-1">
            <b className="mr-2 inline-block w-[70px]">{WORDS[it.kind]}</b>
            {it.kind === 'changed' ? (
              <>
                {shown(it.was, LABOUR_LISTS[list].named)}: {differences(it)}
              </>
            ) : (
              written(it.now ?? it.was)
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const WORDS = { added: 'Added', changed: 'Changed', removed: 'Removed' } as const;
