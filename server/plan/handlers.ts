import { planCalls } from '../../wire/plan';
import { handle } from '../http/handlers';
import { savePlan } from './plan';
import { planView } from '../screens/planView';

export const planHandlers = handle(planCalls, {
  plan: (sql, { job, asOf }) => planView(sql, job, asOf),
  savePlan: (command, { job, body }) => savePlan(command, job, body),
});
