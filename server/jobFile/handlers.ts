import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { LedrinError } from '../../core/errors/ledrinError';
import { jobFileCalls } from '../../wire/jobFile';
import { isSound, LARGEST_FILE } from '../attachments/contents';
import { handle } from '../http/handlers';
import { oneFile } from '../http/upload';
import { addEvent, attachFile, saveChecklist, saveCheckTemplate, saveJobFacts, savePeople } from './jobFile';
import { attachedFile, jobFileView } from './jobFileView';

/** What a browser may open in a page of its own; everything else is taken to disk. */
const OPENED = /^(application\/pdf|image\/(png|jpeg|gif|webp)|text\/plain)$/;
const SANDBOX = "sandbox; default-src 'none'; img-src 'self'; style-src 'unsafe-inline'";

export const jobFileHandlers = handle(jobFileCalls, {
  jobFile: (sql, { job }) => jobFileView(sql, job),
  saveJobFacts: (command, { job, body }) => saveJobFacts(command, job, body),
  savePeople: (command, { job, body }) => savePeople(command, job, body.people, body.seen),
  saveChecklist: (command, { job, body }) => saveChecklist(command, job, body.items, body.seen),
  saveCheckTemplate: (command, { body }) => saveCheckTemplate(command, body),
  addEvent: (command, { job, body }) => addEvent(command, job, body),
  attachFile: {
    limits: { files: 1, fileSize: LARGEST_FILE, total: LARGEST_FILE + 10_000 },
    run: async (command, { job }, received, { files }) => {
      const { name, mediaType, path } = oneFile(received, 'a file of at most 25 MB');
      const file = { name: name.slice(0, 200), mediaType, content: readFileSync(path) };
      await attachFile(command, files, job, file, (received.fields.about ?? '').slice(0, 40));
    },
  },
  attachment: async (database, { id }, { files }) => {
    const { name, mediaType, hash } = await database.read((sql) => attachedFile(sql, id));
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
  },
});
