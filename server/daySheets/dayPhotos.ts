import { readFileSync } from 'node:fs';
import { imageSize } from 'image-size';
import { LedrinError } from '../../core/errors/ledrinError';
import { hashOf, keepContent } from '../attachments/contents';
import type { Reader } from '../db/sql';
import type { Download } from '../http/handlers';
import { oneFile, type Received } from '../http/upload';
import { attachmentFile } from '../jobFile/attachmentFile';
import { AttachmentTable } from '../jobFile/models';
import type { Command } from '../acts/command';
import { dayHead, daysOf, noSheet, type DayKey } from './daySheetViews';
import { DAY_PICTURE } from './queries';
import { subjectOfDay } from './saveDaySheet';

/** Pictures as a phone sends them; larger ones are made smaller there. */
export const LARGEST_PICTURE = 8 * 1024 * 1024;
/** What the first bytes of a picture are. */
const SIGNS: readonly { type: string; ending: string; bytes: readonly number[] }[] = [
  { type: 'image/jpeg', ending: 'jpg', bytes: [0xff, 0xd8, 0xff] },
  { type: 'image/png', ending: 'png', bytes: [0x89, 0x50, 0x4e, 0x47] },
];

/** Takes a picture a day sheet names by its SHA-256, as an attachment of the job; one that is there already stays the one it is. */
export async function addDayPhoto(command: Command, key: DayKey, received: Received, folder: string): Promise<void> {
  const { sql, actor } = command;
  const head = await dayHead(sql, key);
  if (!head) throw noSheet(key);
  const content = readFileSync(oneFile(received, 'a picture of at most 8 MB').path);
  const sign = SIGNS.find(({ bytes }) => bytes.every((it, i) => content[i] === it));
  if (!sign) refuseFile('expected a picture, JPEG or PNG');
  assertDrawable(content);
  const hash = hashOf(content);
  const day = (await daysOf(sql, [head])).get(head.id);
  if (![...(day?.photos ?? []), ...(day?.deliveries ?? [])].some((it) => it.photo === hash))
    refuseFile('the day sheet does not name this picture; send the day sheet first');
  keepContent(folder, hash, content);
  if (await sql.findOne(AttachmentTable, { job_id: head.jobId, hash })) return;
  const name = `${head.dated} ${hash.slice(0, 6)}.${sign.ending}`;
  await sql.insert(AttachmentTable, {
    job_id: head.jobId,
    name,
    media_type: sign.type,
    size: content.length,
    hash,
    about: `day sheet ${head.dated}`,
    for_site: 0,
    actor: actor.name,
    added_at: actor.at,
  });
  command.note(subjectOfDay(key), { photo: name, hash });
}

/** Pixels of a picture, width by height: decoded, each takes memory, however small the file is. */
const MOST_PIXELS = 50_000_000;

/** Throws bad-input where a picture says of itself that it is too large to be printed, or nothing that can be read. */
function assertDrawable(content: Buffer): void {
  let size: { width: number; height: number };
  try {
    size = imageSize(content);
  } catch {
    refuseFile('the picture cannot be read; take it again');
  }
  if (size.width * size.height > MOST_PIXELS)
    refuseFile(`the picture has ${size.width} × ${size.height} pixels; expected at most 50 million, such as 7,000 × 7,000`);
}

function refuseFile(message: string): never {
  throw new LedrinError('bad-input', `file: ${message}`, [{ field: 'file', message }]);
}

/** A picture as it goes out, of a job whoever asks sees. */
export async function dayPhoto(sql: Reader, hash: string, folder: string): Promise<Download> {
  const found = await sql.get(DAY_PICTURE, [hash]);
  if (!found) throw new LedrinError('not-found', 'This picture has not arrived yet, or is of no job of yours');
  return attachmentFile(folder, found);
}
