import { Router } from 'express';
import multer from 'multer';
import { LedrinError } from '../../core/errors/ledrinError';
import { readSheet } from '../book/csv/readSheet';
import { removeJobTemplate, saveJobTemplate } from './jobTemplates';
import { jobSetup, jobTemplateList } from './jobSetup';
import { draftInput, jobInput, jobStatusInput, jobTemplateInput } from '../../wire/jobs';
import { createJob, deleteDraft, saveDraft } from './jobs';
import { moveJob } from './jobLife';
import { jobList } from './jobList';
import { estimateView, jobView } from './jobView';
import { jobBilling } from '../billing/jobBilling';
import { actorOf, asOfOf, numberParam, textParam, type Context } from '../http/context';
import { read } from '../http/reply';
import { receive } from '../http/upload';

/** The largest sheet that is read to be matched. */
const LARGEST_SHEET = 10_000_000;

export function jobRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  router.get(
    '/jobs',
    async (request, response) => void response.json(await database.consistent((sql) => jobList(sql, asOfOf(request.query.asOf)))),
  );
  router.post(
    '/jobs',
    async (request, response) =>
      void response.status(201).json({ number: await createJob(database, actorOf(context), read(jobInput, request.body)) }),
  );
  router.get(
    '/jobs/:number',
    async (request, response) =>
      void response.json(
        await database.consistent((sql) => jobView(sql, textParam(request, 'number'), asOfOf(request.query.asOf))),
      ),
  );
  router.get(
    '/jobs/:number/estimate',
    async (request, response) =>
      void response.json(
        await database.consistent((sql) => estimateView(sql, textParam(request, 'number'), asOfOf(request.query.asOf))),
      ),
  );
  router.get(
    '/jobs/:number/billing',
    async (request, response) =>
      void response.json(
        await database.consistent((sql) => jobBilling(sql, textParam(request, 'number'), asOfOf(request.query.asOf))),
      ),
  );
  router.post('/jobs/:number/status', async (request, response) => {
    const { status, on } = read(jobStatusInput, request.body);
    await moveJob(database, actorOf(context), textParam(request, 'number'), status, on);
    response.json({ status });
  });
  router.get(
    '/jobs/:number/setup',
    async (request, response) =>
      void response.json(await database.consistent((sql) => jobSetup(sql, textParam(request, 'number')))),
  );
  router.get('/job-templates', async (_request, response) => void response.json(await jobTemplateList(database.read())));
  router.put('/job-templates', async (request, response) => {
    await saveJobTemplate(database, actorOf(context), read(jobTemplateInput, request.body));
    response.json({});
  });
  router.delete('/job-templates/:name', async (request, response) => {
    await removeJobTemplate(database, actorOf(context), textParam(request, 'name'));
    response.json({});
  });
  const upload = multer({ storage: multer.memoryStorage(), limits: { files: 1, fileSize: LARGEST_SHEET } }).single('file');
  router.post('/sheets', async (request, response) => {
    await receive(upload, request, response);
    if (!request.file)
      throw new LedrinError('bad-input', 'file: expected a CSV or XLSX file', [{ field: 'file', message: 'expected a file' }]);
    response.json(await readSheet(request.file.buffer));
  });
  router.post(
    '/drafts',
    async (request, response) =>
      void response
        .status(201)
        .json({ id: await saveDraft(database, actorOf(context), null, read(draftInput, request.body).content) }),
  );
  router.put(
    '/drafts/:id',
    async (request, response) =>
      void response.json({
        id: await saveDraft(database, actorOf(context), numberParam(request, 'id'), read(draftInput, request.body).content),
      }),
  );
  router.delete('/drafts/:id', async (request, response) => {
    await deleteDraft(database, numberParam(request, 'id'));
    response.json({});
  });
  return router;
}
