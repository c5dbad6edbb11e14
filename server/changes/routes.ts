import { Router } from 'express';
import { changeInput, decideChangeInput, issueChangeInput, transferInput } from '../../wire/changes';
import { discardChange, saveChange } from './changes';
import { viewChange } from './changeEffect';
import { decideChange, issueChange } from './decideChange';
import { transferBudget } from '../budget/transfers';
import { changeRegister, jobChanges, jobTransfers } from './changeViews';
import { actorOf, asOfOf, textParam, type Context } from '../http/context';
import { read } from '../http/reply';

export function changeRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  const all = '/jobs/:number/changes';
  const one = `${all}/:change`;
  const named = (request: Parameters<typeof textParam>[0]) =>
    [textParam(request, 'number'), textParam(request, 'change')] as const;
  router.get(
    '/changes',
    async (request, response) =>
      void response.json(await database.consistent((sql) => changeRegister(sql, asOfOf(request.query.asOf)))),
  );
  router.get(
    all,
    async (request, response) =>
      void response.json(
        await database.consistent((sql) => jobChanges(sql, textParam(request, 'number'), asOfOf(request.query.asOf))),
      ),
  );
  router.post(
    all,
    async (request, response) =>
      void response.status(201).json({
        version: await saveChange(
          database,
          actorOf(context),
          textParam(request, 'number'),
          read(changeInput, request.body),
          null,
        ),
      }),
  );
  router.get(
    one,
    async (request, response) => void response.json(await viewChange(database, ...named(request), asOfOf(request.query.asOf))),
  );
  router.put(one, async (request, response) => {
    const [job, change] = named(request);
    response.json({ version: await saveChange(database, actorOf(context), job, read(changeInput, request.body), change) });
  });
  router.delete(one, async (request, response) => {
    await discardChange(database, actorOf(context), ...named(request));
    response.json({});
  });
  router.post(`${one}/issue`, async (request, response) => {
    await issueChange(database, actorOf(context), ...named(request), read(issueChangeInput, request.body).on);
    response.json({});
  });
  router.post(`${one}/decide`, async (request, response) => {
    await decideChange(database, actorOf(context), ...named(request), read(decideChangeInput, request.body));
    response.json({});
  });
  router.get(
    '/jobs/:number/transfers',
    async (request, response) =>
      void response.json(
        await database.consistent((sql) => jobTransfers(sql, textParam(request, 'number'), asOfOf(request.query.asOf))),
      ),
  );
  router.post(
    '/jobs/:number/transfers',
    async (request, response) =>
      void response.status(201).json({
        number: await transferBudget(database, actorOf(context), textParam(request, 'number'), read(transferInput, request.body)),
      }),
  );
  return router;
}
