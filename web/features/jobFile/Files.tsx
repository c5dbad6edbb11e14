import { displayMoment } from '../../kit/displayMoment';
import { useAttachFileMutation, useShowOnSiteMutation } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useRef, useState } from 'react';
import { toast } from '../../kit/toast';
import type { AttachedFile } from '../../../wire/jobFile';
import { faultOf } from '../../ground/faults';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { Refused } from '../../kit/States';

const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** Whether those who work on site see it: the office decides file by file, since a file may hold prices. */
function ForSite({ job, file }: { job: string; file: AttachedFile }) {
  const [show] = useShowOnSiteMutation();
  const { refused, attempt } = useAttempt();
  const may = useMay();
  if (!may('manage-jobs')) return file.forSite ? <span className="note">for the site</span> : null;
  return (
    <label className="flex items-center gap-2 whitespace-nowrap">
      <input
        type="checkbox"
        checked={file.forSite}
        aria-label={`${file.name}: for the site`}
        onChange={() =>
          void attempt(
            () => show({ job, id: file.id, body: { forSite: !file.forSite } }).unwrap(),
            file.forSite ? `${file.name} is for the office alone` : `${file.name} is shown to the site`,
          )
        }
      />
      for the site
      {refused && <span className="fault">{refused.message}</span>}
    </label>
  );
}

/** Attachments attached to the job, or to the change order `about`, each saved as it came, with its hash. */
export function Files({ job, files, about = '' }: { job: string; files: readonly AttachedFile[]; about?: string }) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [attach, { isLoading }] = useAttachFileMutation();
  const send = async (list: FileList | null) => {
    setFault(null);
    for (const file of list ?? []) {
      const body = new FormData();
      body.append('about', about);
      body.append('file', file, file.name);
      try {
        await attach({ job, body }).unwrap();
        toast(`${file.name} is attached`);
      } catch (error) {
        setFault(`${file.name}: ${faultOf(error).message}`);
      }
    }
    if (input.current) input.current.value = '';
  };
  return (
    <section aria-label="Attachments">
      <div className="mb-1 flex items-end justify-between">
        <h2>Attachments</h2>
        <label className="button cursor-pointer">
          {isLoading ? 'Attaching …' : 'Attach a file, up to 25 MB'}
          <input ref={input} type="file" multiple className="sr-only" onChange={(event) => void send(event.target.files)} />
        </label>
      </div>
      {fault && <Refused message={fault} />}
      {files.length === 0 ? (
        <p className="note m-0">No attachments yet: drawings, the order, photographs.</p>
      ) : (
        <table className="ledger static-foot">
          <tbody>
            {files.map((it) => (
              <tr key={it.id} title={`SHA-256 ${it.hash}`}>
                <td>
                  <a href={hrefOf(CALLS.attachment, { id: it.id })} target="_blank" rel="noreferrer">
                    {it.name}
                  </a>
                  {it.about !== about && <span className="note"> of {it.about}</span>}
                </td>
                <td>
                  <ForSite job={job} file={it} />
                </td>
                <td className="num">{size(it.size)}</td>
                <td className="note num">
                  {it.actor}, {displayMoment(it.addedAt)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
