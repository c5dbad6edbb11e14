import { t, table } from '../db/fields';

export const JobSectionTable = table('job_section', {
  id: t.id,
  job_id: t.ref('job'),
  name: t.text,
  starts_on: t.orNull(t.day),
  finishes_on: t.orNull(t.day),
  started_on: t.orNull(t.day),
  finished_on: t.orNull(t.day),
});

export const CostLinePlanTable = table('cost_line_plan', {
  cost_line_id: t.asKey(t.ref('cost_line')),
  starts_on: t.day,
  finishes_on: t.day,
});
