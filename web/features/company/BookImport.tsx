import { useImportBookMutation } from '../../ground/api/api';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { faultOf, type ShownFault } from '../../ground/faults';

/** Takes the files of a book; what is wrong with them is listed whole, and nothing is imported. */
export function BookImport({ onDone }: { onDone?: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [importBook, { isLoading }] = useImportBookMutation();
  const send = async (files: FileList | null) => {
    if (!files || files.length === 0) return;
    const form = new FormData();
    for (const file of files) form.append('files', file, file.name);
    setRefused(null);
    try {
      const counts = await importBook({ body: form }).unwrap();
      toast(
        `Imported ${Object.entries(counts)
          .map(([file, count]) => `${count.toLocaleString('en-GB')} ${file.replaceAll('_', ' ')}`)
          .join(', ')}`,
      );
      onDone?.();
    } catch (error) {
      setRefused(faultOf(error));
    }
    if (input.current) input.current.value = '';
  };
  return (
    <div>
      <label className="button cursor-pointer">
        {isLoading ? 'Importing …' : 'Choose the files of a book'}
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          disabled={isLoading}
          onChange={(event) => void send(event.target.files)}
        />
      </label>
      {refused && (
        <div role="alert" className="mt-3">
          <p className="fault m-0">{refused.message}</p>
          <ol className="scroll m-0 mt-1 max-h-[260px] list-none p-0 text-[13px]" tabIndex={0}>
            {refused.faults.slice(0, 500).map((fault, i) => (
              <li key={i} className="border-b py-[2px] border-[var(--hair)]">
                {fault.message}
              </li>
            ))}
          </ol>
          {refused.faults.length > 500 && <p className="note">and {refused.faults.length - 500} more.</p>}
        </div>
      )}
    </div>
  );
}
