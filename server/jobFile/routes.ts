import { existsSync } from 'node:fs';
import { basename, join } from 'node:path';
import { Router } from 'express';
import multer from 'multer';
import { LARGEST_FILE } from '../attachments/contents';
import { LedrinError } from '../../core/errors/ledrinError';
import { checklistInput, checkTemplateInput, eventInput, jobFactsInput, lockInput, peopleInput } from '../../wire/jobFile';
import { addEvent, attachFile, saveChecklist, saveCheckTemplate, saveJobFacts, savePeople } from './jobFile';
import { deleteJob, lockJob } from '../jobs/jobLife';
import { attachedFile, jobFileView } from './jobFileView';
import { actorOf, numberParam, textParam, type Context } from '../http/context';
import { read } from '../http/reply';
import { receive } from '../http/upload';

/** What a browser may open in a page of its own; everything else is taken to disk. */
const OPENED = /^(application\/pdf|image\/(png|jpeg|gif|webp)|text\/plain)$/;

export function jobFileRoutes(context: Context): Router {
  const { database, files } = context;
  const router = Router();
  const job = '/jobs/:number';
  router.get(`${job}/file`, async (request, response) => {
    response.json(await database.consistent((sql) => jobFileView(sql, textParam(request, 'number'))));
  });
  router.put(`${job}/facts`, async (request, response) => {
    await saveJobFacts(database, actorOf(context), textParam(request, 'number'), read(jobFactsInput, request.body));
    response.json({});
  });
  router.put(`${job}/people`, async (request, response) => {
    const { people, seen } = read(peopleInput, request.body);
    await savePeople(database, actorOf(context), textParam(request, 'number'), people, seen);
    response.json({});
  });
  router.put(`${job}/checklist`, async (request, response) => {
    const { items, seen } = read(checklistInput, request.body);
    await saveChecklist(database, actorOf(context), textParam(request, 'number'), items, seen);
    response.json({});
  });
  router.put('/checklists', async (request, response) => {
    await saveCheckTemplate(database, actorOf(context), read(checkTemplateInput, request.body));
    response.json({});
  });
  router.post(`${job}/events`, async (request, response) => {
    await addEvent(database, actorOf(context), textParam(request, 'number'), read(eventInput, request.body));
    response.status(201).json({});
  });
  router.post(`${job}/lock`, async (request, response) => {
    const { locked, reason } = read(lockInput, request.body);
    await lockJob(database, actorOf(context), textParam(request, 'number'), locked, reason);
    response.json({});
  });
  router.delete(job, async (request, response) => {
    await deleteJob(database, actorOf(context), textParam(request, 'number'));
    response.json({});
  });
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { files: 1, fileSize: LARGEST_FILE, fields: 3, fieldSize: 400 },
  }).single('file');
  router.post(`${job}/files`, async (request, response) => {
    await receive(upload, request, response);
    const { file } = request;
    if (!file)
      throw new LedrinError('bad-input', 'file: expected an attachment of at most 25 MB', [
        { field: 'file', message: 'expected an attachment' },
      ]);
    const name = basename(Buffer.from(file.originalname, 'latin1').toString('utf8')).slice(0, 200) || 'attachment';
    const about = String((request.body as Record<string, unknown>).about ?? '').slice(0, 40);
    await attachFile(
      database,
      files,
      actorOf(context),
      textParam(request, 'number'),
      { name, mediaType: file.mimetype, content: file.buffer },
      about,
    );
    response.status(201).json({});
  });
  router.get('/files/:id', async (request, response) => {
    const { name, mediaType, hash } = await attachedFile(database.read(), numberParam(request, 'id'));
    const path = join(files, hash);
    if (!existsSync(path))
      throw new LedrinError(
        'not-found',
        `${name} is not in the folder of attachments any more; its hash was ${hash.slice(0, 12)}…`,
      );
    const opened = OPENED.test(mediaType);
    response.setHeader('Content-Security-Policy', "sandbox; default-src 'none'; img-src 'self'; style-src 'unsafe-inline'");
    response.setHeader(
      'Content-Disposition',
      `${opened ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
    );
    response.type(opened ? mediaType : 'application/octet-stream').sendFile(path, { dotfiles: 'allow' });
  });
  return router;
}
