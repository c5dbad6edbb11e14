import { type WEEKDAYS } from '../../core/labour/overtime';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { CHARGE_MARKS } from '../../core/charging/chargeMark';
import { t, table } from '../db/fields';

export const EmployeeTable = table('employee', {
  id: t.id,
  code: t.text,
  name: t.text,
  wage_class: t.filled(t.text, ''),
  starts_on: t.orNull(t.day),
  ends_on: t.orNull(t.day),
  payroll_number: t.filled(t.text, ''),
  department_id: t.orNull(t.ref('department')),
});

export const WageClassTable = table('wage_class', { id: t.id, code: t.text, description: t.filled(t.text, '') });

export const WorkKindTable = table('work_kind', { id: t.id, code: t.text, description: t.text });

export const PayRateTable = table('pay_rate', {
  id: t.id,
  from_day: t.day,
  job_id: t.orNull(t.ref('job')),
  section: t.filled(t.text, ''),
  work_kind_id: t.orNull(t.ref('work_kind')),
  wage_class: t.filled(t.text, ''),
  employee_id: t.orNull(t.ref('employee')),
  rate: t.unitCost,
  at_least: t.filled(t.flag, 0),
});

export const PieceRateTable = table('piece_rate', {
  id: t.id,
  from_day: t.day,
  cost_code_id: t.ref('cost_code'),
  work_kind_id: t.orNull(t.ref('work_kind')),
  rate: t.unitCost,
  unit: t.filled(t.text, ''),
  tops_up: t.filled(t.flag, 0),
});

export const BurdenTable = table('burden', {
  id: t.id,
  code: t.text,
  description: t.filled(t.text, ''),
  from_day: t.day,
  to_day: t.orNull(t.day),
  job_id: t.orNull(t.ref('job')),
  wage_class: t.filled(t.text, ''),
  percent: t.filled(t.rate, 0),
  per_hour: t.filled(t.unitCost, 0),
  on_premium: t.filled(t.flag, 0),
});

export const OvertimeRuleTable = table('overtime_rule', {
  id: t.id,
  from_day: t.day,
  daily_after: t.orNull(t.hours),
  double_after: t.orNull(t.hours),
  weekly_after: t.orNull(t.hours),
  week_starts: t.filled(t.oneOf<(typeof WEEKDAYS)[number]>(), 'monday'),
});

export const PayCodeTable = table('pay_code', {
  id: t.id,
  code: t.text,
  pay: t.oneOf(...PAY_CLASSES),
  job_id: t.orNull(t.ref('job')),
  work_kind_id: t.orNull(t.ref('work_kind')),
});

export const TimeLineTable = table('time_line', {
  id: t.id,
  sheet: t.text,
  line: t.text,
  employee_id: t.ref('employee'),
  dated: t.day,
  /** The accounting date. */
  posted_on: t.day,
  /** Null: overhead. */
  job_id: t.orNull(t.ref('job')),
  section: t.filled(t.text, ''),
  cost_code_id: t.orNull(t.ref('cost_code')),
  work_kind_id: t.orNull(t.ref('work_kind')),
  /** The line's own, as entered. */
  wage_class: t.filled(t.text, ''),
  /** Null: open until it is posted. */
  pay: t.orNull(t.oneOf(...PAY_CLASSES)),
  hours: t.hours,
  units: t.orNull(t.quantity),
  status: t.oneOf('submitted', 'approved', 'posted'),
  description: t.filled(t.text, ''),
  reverses_id: t.orNull(t.ref('time_line')),
  /** Its class is by the overtime rule, not given. */
  split: t.filled(t.flag, 0),
  posting_id: t.orNull(t.ref('posting')),
  /** Before the multiplier; of a piece where the rung says so. */
  rate: t.orNull(t.unitCost),
  rung: t.filled(t.text, ''),
  pay_amount: t.orNull(t.cents),
  burden: t.orNull(t.cents),
  /** The times it was worked between, as entered; empty: hours alone. */
  clock: t.filled(t.text, ''),
  /** Why it was returned to whoever entered it; empty: it was not. */
  returned: t.filled(t.text, ''),
  /** Of overhead; null: that of the employee. */
  department_id: t.orNull(t.ref('department')),
  /** As entered; empty: by the job. Once it is posted, its entries carry the mark. */
  charge: t.filled(t.oneOf('', ...CHARGE_MARKS), ''),
  charge_from: t.orNull(t.day),
  charge_markup: t.orNull(t.rate),
});
