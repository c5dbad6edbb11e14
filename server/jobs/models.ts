import { PRICINGS } from '../../core/charging/pricing';
import { ALL_JOB_STATUSES } from '../../core/jobs/jobStatus';
import { t, table } from '../db/fields';

export const JobTable = table('job', {
  id: t.id,
  number: t.text,
  name: t.text,
  client_id: t.ref('client'),
  contract_reference: t.text,
  status: t.oneOf(...ALL_JOB_STATUSES),
  awarded_on: t.orNull(t.day),
  starts_on: t.orNull(t.day),
  finishes_on: t.orNull(t.day),
  finished_on: t.orNull(t.day),
  manager: t.text,
  site: t.text,
  revenue_method: t.oneOf('cost-to-cost', 'hours', 'physical', 'completed'),
  retention_rate: t.rate,
  retention_materials_rate: t.orNull(t.rate),
  retention_step_at: t.orNull(t.rate),
  retention_step_to: t.orNull(t.rate),
  retention_step_applies: t.oneOf('all', 'further'),
  retention_cap: t.orNull(t.rate),
  tax_rate: t.rate,
  terms_days: t.orNull(t.whole),
  locked: t.filled(t.flag, 0),
  estimator: t.filled(t.text, ''),
  defects_end: t.orNull(t.day),
  no_retention: t.filled(t.flag, 0),
  /** Takes costs and documents from its team alone. */
  restricted: t.filled(t.flag, 0),
  job_kind_id: t.orNull(t.ref('job_kind')),
  department_id: t.orNull(t.ref('department')),
  /** What its hours are, where a line of time does not say otherwise. */
  work_kind_id: t.orNull(t.ref('work_kind')),
  pricing: t.filled(t.oneOf(...PRICINGS), 'fixed'),
  /** Of a charged job, before tax; null where it has none. */
  charge_ceiling: t.orNull(t.cents),
});

export const JobDraftTable = table('job_draft', {
  id: t.id,
  content: t.text,
  actor: t.text,
  saved_at: t.moment,
});

export const SovLineTable = table('sov_line', {
  id: t.id,
  job_id: t.ref('job'),
  line: t.text,
  position: t.whole,
  original: t.flag,
  section: t.text,
  description: t.text,
  scheduled_value: t.cents,
  quantity: t.orNull(t.quantity),
  unit: t.text,
  retention_rate: t.orNull(t.rate),
});

export const JobMoveTable = table('job_move', {
  id: t.id,
  job_id: t.ref('job'),
  was: t.text,
  became: t.text,
  on_day: t.orNull(t.day),
  reason: t.text,
  actor: t.text,
  at: t.moment,
});

export const JobTemplateTable = table('job_template', {
  id: t.id,
  name: t.text,
  content: t.text,
  saved_at: t.moment,
});
