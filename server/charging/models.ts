import { CHARGE_MARKS } from '../../core/charging/chargeMark';
import { COST_TYPES } from '../../core/costs/costType';
import { t, table } from '../db/fields';

/** What is charged of a cost entry. An entry without a row is not charged. */
export const ChargeMarkTable = table('charge_mark', {
  cost_entry_id: t.asKey(t.ref('cost_entry')),
  job_id: t.ref('job'),
  mark: t.oneOf(...CHARGE_MARKS),
  /** As it was said; null: from its accounting date. */
  charge_from: t.orNull(t.day),
  /** The later of its accounting date and `charge_from`. */
  counts_from: t.day,
  /** The entry's own; null: the job's for its cost type. */
  markup: t.orNull(t.rate),
  /** Before tax; worked again when what it stands on changes, until an invoice took it. */
  charge: t.cents,
  /** What the client reads of it; empty: its own words. */
  wording: t.filled(t.text, ''),
});

export const ChargeRateTable = table('charge_rate', {
  id: t.id,
  from_day: t.day,
  job_id: t.orNull(t.ref('job')),
  client_id: t.orNull(t.ref('client')),
  work_kind_id: t.orNull(t.ref('work_kind')),
  employee_id: t.orNull(t.ref('employee')),
  wage_class: t.filled(t.text, ''),
  rate: t.unitCost,
});

export const ChargeMarkupTable = table('charge_markup', {
  id: t.id,
  job_id: t.ref('job'),
  cost_type: t.oneOf(...COST_TYPES),
  markup: t.rate,
});
