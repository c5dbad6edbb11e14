import { readFileSync } from 'node:fs';
import { jobFileCalls } from '../../wire/jobFile';
import { LARGEST_FILE } from '../attachments/contents';
import { handle } from '../http/handlers';
import { oneFile } from '../http/upload';
import { attachmentFile } from './attachmentFile';
import { addEvent, attachFile, saveChecklist, saveCheckTemplate, saveJobFacts, savePeople, showOnSite } from './jobFile';
import { attachedFile, jobFileView } from './jobFileView';

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
      await attachFile(command, files, job, file, {
        about: (received.fields.about ?? '').slice(0, 40),
        forSite: received.fields.forSite === 'yes',
      });
    },
  },
  showOnSite: (command, { job, id, body }) => showOnSite(command, job, id, body.forSite),
  attachment: async (database, { id }, { files }) => attachmentFile(files, await database.read((sql) => attachedFile(sql, id))),
});
