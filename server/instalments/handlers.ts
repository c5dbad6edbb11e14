import { instalmentCalls } from '../../wire/instalments';
import { handle } from '../http/handlers';
import { billingScheduleView } from './billingScheduleView';
import { saveBillingSchedule } from './instalments';

export const instalmentHandlers = handle(instalmentCalls, {
  billingSchedule: (sql, { job, asOf }) => billingScheduleView(sql, job, asOf),
  saveBillingSchedule: (command, { job, body }) => saveBillingSchedule(command, job, body),
});
