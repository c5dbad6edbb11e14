import { t, table } from '../db/fields';

/** Who of the users was reminded of the hours of an employee that are not handed in, by week; asked again, it is written over. */
export const ReminderTable = table('reminder', {
  id: t.id,
  week: t.day,
  employee_id: t.ref('employee'),
  user_id: t.ref('user'),
  reminded_by: t.text,
  reminded_at: t.moment,
});
