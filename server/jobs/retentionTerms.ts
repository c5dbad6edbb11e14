import type { JobInput } from '../../wire/jobs';
import type { RowOf } from '../db/fields';
import type { JobTable } from './models';

type Terms = JobInput['retention'];
type Row = RowOf<typeof JobTable>;

/** The retention terms of a job, as they are typed. */
export const retentionTermsOf = (row: Row): Terms => ({
  rate: row.retention_rate,
  materialsRate: row.retention_materials_rate,
  stepAt: row.retention_step_at,
  stepTo: row.retention_step_to,
  stepApplies: row.retention_step_applies,
  cap: row.retention_cap,
});

/** The same as columns of the job. */
export const retentionColumns = ({ rate, materialsRate, stepAt, stepTo, stepApplies, cap }: Terms) => ({
  retention_rate: rate,
  retention_materials_rate: materialsRate,
  retention_step_at: stepAt,
  retention_step_to: stepTo,
  retention_step_applies: stepApplies,
  retention_cap: cap,
});
