import { REVENUE_METHODS } from '../../core/progress/workInProgress';
import { t, table } from '../db/fields';

export const CompanyTable = table('company', {
  id: t.id,
  name: t.text,
  currency: t.text,
  tax_name: t.text,
  tax_rate: t.rate,
  year_start_month: t.whole,
  address: t.text,
  job_number_pattern: t.filled(t.text, ''),
  registration_number: t.filled(t.text, ''),
  tax_number: t.filled(t.text, ''),
  phone: t.filled(t.text, ''),
  email: t.filled(t.text, ''),
  web: t.filled(t.text, ''),
  bank_details: t.filled(t.text, ''),
  /** Where its day begins, such as Europe/London; empty: the server's own. */
  time_zone: t.filled(t.text, ''),
  /** How long a phone of the site stays signed in. */
  site_days: t.filled(t.whole, 30),
  /** A data URL. */
  logo: t.filled(t.text, ''),
});

export const ClientTable = table('client', {
  id: t.id,
  code: t.text,
  name: t.text,
  contact: t.text,
  email: t.text,
  phone: t.text,
  address: t.text,
  terms_days: t.orNull(t.whole),
  closed: t.filled(t.flag, 0),
  /** What is applied for stands: it is billed in one act. */
  never_certifies: t.filled(t.flag, 0),
});

export const VendorTable = table('vendor', {
  id: t.id,
  code: t.text,
  name: t.text,
  kind: t.oneOf('supplier', 'subcontractor', ''),
  contact: t.text,
  email: t.text,
  phone: t.text,
  address: t.text,
  terms_days: t.orNull(t.whole),
  closed: t.filled(t.flag, 0),
});

export const CostCodeTable = table('cost_code', {
  id: t.id,
  code: t.text,
  description: t.text,
  unit: t.text,
  closed: t.filled(t.flag, 0),
});

/** One of our own; jobs name people by their names. */
export const PersonTable = table('person', {
  id: t.id,
  name: t.text,
  role: t.filled(t.text, ''),
  email: t.filled(t.text, ''),
  phone: t.filled(t.text, ''),
  closed: t.filled(t.flag, 0),
});

export const DepartmentTable = table('department', {
  id: t.id,
  code: t.text,
  name: t.text,
  closed: t.filled(t.flag, 0),
});

/** A kind of job, and what a new job of it begins with; what is null or empty it says nothing of. */
export const JobKindTable = table('job_kind', {
  id: t.id,
  code: t.text,
  name: t.text,
  closed: t.filled(t.flag, 0),
  retention_rate: t.orNull(t.rate),
  revenue_method: t.filled(t.oneOf(...REVENUE_METHODS, ''), ''),
  terms_days: t.orNull(t.whole),
  work_kind_id: t.orNull(t.ref('work_kind')),
  pay_code: t.filled(t.text, ''),
  /** A checklist saved under a name. */
  checklist: t.filled(t.text, ''),
});
