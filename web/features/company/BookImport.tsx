import { useRef, useState } from 'react';
import { toast } from '../../kit/toast';
import type { ImportPreview } from '../../../wire/book';
import { useImportBookMutation, usePreviewImportMutation } from '../../ground/api/api';
import { useAttempt } from '../../ground/useAttempt';
import { Refused } from '../../kit/States';
import { ImportSeen } from './ImportSeen';

function formOf(files: readonly File[]): FormData {
  const form = new FormData();
  for (const file of files) form.append('files', file, file.name);
  return form;
}

/** Takes the files of a company, or their ZIP: what they would bring is seen first, then taken or not. */
export function BookImport({ onDone }: { onDone?: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState<{ files: readonly File[]; preview: ImportPreview } | null>(null);
  const [ask, { isLoading: reading }] = usePreviewImportMutation();
  const [importBook, { isLoading: importing }] = useImportBookMutation();
  const { refused, setRefused, attempt } = useAttempt();
  const look = async (list: FileList | null) => {
    if (!list || list.length === 0) return;
    const files = [...list];
    setChosen(null);
    setRefused(null);
    await attempt(async () => setChosen({ files, preview: await ask({ body: formOf(files) }).unwrap() }));
    if (input.current) input.current.value = '';
  };
  const take = async (files: readonly File[], skip: boolean) => {
    const work = async () => {
      const counts = await importBook({ body: formOf(files), ...(skip ? { identical: 'skip' as const } : {}) }).unwrap();
      const rows = Object.entries(counts).filter(([, count]) => count > 0);
      toast(
        rows.length === 0
          ? 'Nothing was imported: all of it was there already'
          : `Imported ${rows.map(([file, count]) => `${count.toLocaleString('en-GB')} ${file.replaceAll('_', ' ')}`).join(', ')}`,
      );
    };
    if (!(await attempt(work))) return;
    setChosen(null);
    onDone?.();
  };
  return (
    <>
      <label className="button cursor-pointer">
        {reading ? 'Reading …' : 'Import CSV files or a ZIP …'}
        <input
          ref={input}
          type="file"
          multiple
          accept=".csv,.zip"
          className="sr-only"
          disabled={reading || importing}
          onChange={(event) => void look(event.target.files)}
        />
      </label>
      <div className="min-w-0 basis-full">
        {refused && <Refused message={refused.message} />}
        {chosen && (
          <ImportSeen
            preview={chosen.preview}
            busy={importing}
            onTake={(skip) => void take(chosen.files, skip)}
            onLeave={() => setChosen(null)}
          />
        )}
      </div>
    </>
  );
}
