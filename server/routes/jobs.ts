import { Router } from 'express';
import { draftInput, jobInput, jobStatusInput } from '../../wire/jobs';
import { createJob, deleteDraft, saveDraft } from '../commands/jobs';
import { moveJob } from '../commands/jobLife';
import { jobList } from '../queries/views/jobList';
import { estimateView, jobView } from '../queries/views/jobView';
import { jobBilling } from '../queries/views/jobBilling';
import { actorOf, asOfOf, numberParam, textParam, type Context } from './context';
import { read } from './reply';

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
