import { useJobFileQuery } from '../../ground/api/api';
import { useParams } from 'react-router';
import { Files } from './Files';

/** Attachments attached to one change order: what was asked for, drawn and agreed. */
export function ChangeFiles() {
  const { number: job = '', change = '' } = useParams();
  const { data } = useJobFileQuery({ job });
  if (!data) return null;
  return (
    <div className="mt-6 max-w-[760px]">
      <Files job={job} files={data.files.filter((it) => it.about === change)} about={change} />
    </div>
  );
}
