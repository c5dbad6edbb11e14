import { Router } from 'express';
import { awardInput, estimateInput, newEstimateInput, sentInput, repriceInput } from '../../wire/estimates';
import { awardJob } from './award';
import { chooseEstimate, discardEstimate, saveEstimate, sendEstimate, startEstimate } from './estimates';
import { previewReprice, repriceEstimate } from './repriceEstimate';
import { estimateList, estimateView } from './estimateViews';
import { actorOf, numberParam, textParam, type Context } from '../http/context';
import { read } from '../http/reply';

export function estimateRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  const all = '/jobs/:number/estimates';
  const one = `${all}/:estimate`;
  const named = (request: Parameters<typeof textParam>[0]) =>
    [textParam(request, 'number'), numberParam(request, 'estimate')] as const;
  router.get(
    all,
    async (request, response) =>
      void response.json(await database.consistent((sql) => estimateList(sql, textParam(request, 'number')))),
  );
  router.post(
    all,
    async (request, response) =>
      void response.status(201).json({
        number: await startEstimate(
          database,
          actorOf(context),
          textParam(request, 'number'),
          read(newEstimateInput, request.body),
        ),
      }),
  );
  router.get(
    one,
    async (request, response) => void response.json(await database.consistent((sql) => estimateView(sql, ...named(request)))),
  );
  router.put(
    one,
    async (request, response) =>
      void response.json({
        version: await saveEstimate(database, actorOf(context), ...named(request), read(estimateInput, request.body)),
      }),
  );
  router.delete(one, async (request, response) => {
    await discardEstimate(database, actorOf(context), ...named(request));
    response.json({});
  });
  router.get(
    `${one}/reprice`,
    async (request, response) => void response.json(await previewReprice(database, ...named(request))),
  );
  router.post(
    `${one}/reprice`,
    async (request, response) =>
      void response.json({
        version: await repriceEstimate(database, actorOf(context), ...named(request), read(repriceInput, request.body).seen),
      }),
  );
  router.post(`${one}/choose`, async (request, response) => {
    await chooseEstimate(database, actorOf(context), ...named(request));
    response.json({});
  });
  router.post(`${one}/sent`, async (request, response) => {
    const { on, reference } = read(sentInput, request.body);
    await sendEstimate(database, actorOf(context), ...named(request), on, reference);
    response.json({});
  });
  router.post(`${one}/award`, async (request, response) => {
    await awardJob(database, actorOf(context), ...named(request), read(awardInput, request.body));
    response.status(201).json({});
  });
  return router;
}
