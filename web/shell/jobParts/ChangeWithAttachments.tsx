import { ChangePage } from '../../features/changes/ChangePage';
import { ChangeFiles } from '../../features/jobFile/ChangeFiles';

/** A change order with the files attached to it. */
export function ChangeWithAttachments() {
  return <ChangePage attachments={<ChangeFiles />} />;
}
