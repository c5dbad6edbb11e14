import { Router } from 'express';
import { instalmentsInput } from '../../wire/instalments';
import { planInput } from '../../wire/plan';
import { saveInstalments } from '../instalments/instalments';
import { savePlan } from './plan';
import { billingScheduleView } from '../instalments/billingScheduleView';
import { planView } from './planView';
import { actorOf, asOfOf, textParam, type Context } from '../http/context';
import { read } from '../http/reply';

/** When work is planned, and when it is billed by a fixed schedule. */
export function planRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  const [plan, schedule] = ['/jobs/:number/plan', '/jobs/:number/billing-schedule'];
  router.get(plan, async (request, response) => {
    const [job, asOf] = [textParam(request, 'number'), asOfOf(request.query.asOf)];
    response.json(await database.consistent((sql) => planView(sql, job, asOf)));
  });
  router.put(plan, async (request, response) => {
    await savePlan(database, actorOf(context), textParam(request, 'number'), read(planInput, request.body));
    response.json({});
  });
  router.get(schedule, async (request, response) => {
    const [job, asOf] = [textParam(request, 'number'), asOfOf(request.query.asOf)];
    response.json(await database.consistent((sql) => billingScheduleView(sql, job, asOf)));
  });
  router.put(schedule, async (request, response) => {
    await saveInstalments(database, actorOf(context), textParam(request, 'number'), read(instalmentsInput, request.body));
    response.json({});
  });
  return router;
}
