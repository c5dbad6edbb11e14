import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { LedrinError } from '../../core/errors/ledrinError';
import { isSound } from '../attachments/contents';
import type { Download } from '../http/handlers';

/** What a browser may open in a page of its own; everything else is taken to disk. */
const OPENED = /^(application\/pdf|image\/(png|jpeg|gif|webp)|text\/plain)$/;
const SANDBOX = "sandbox; default-src 'none'; img-src 'self'; style-src 'unsafe-inline'";

/** An attachment as it goes out. Throws not-found where it is missing from its folder, or damaged there. */
export function attachmentFile(
  files: string,
  { name, mediaType, hash }: { name: string; mediaType: string; hash: string },
): Download {
  const path = join(files, hash);
  if (!existsSync(path))
    throw new LedrinError('not-found', `${name} is no longer in the folder of attachments; its hash was ${hash.slice(0, 12)}…`);
  if (!isSound(path, hash))
    throw new LedrinError(
      'not-found',
      `${name} is damaged in the folder of attachments; attach the same file again, which repairs it`,
    );
  const inline = OPENED.test(mediaType);
  const type = inline ? mediaType : 'application/octet-stream';
  return { type, name, inline, headers: { 'Content-Security-Policy': SANDBOX }, content: { path } };
}
