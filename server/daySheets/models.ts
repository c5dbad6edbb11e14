import { ENTRY_KINDS } from '../../core/daySheets/daySheet';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { t, table } from '../db/fields';

export const DaySheetTable = table('day_sheet', {
  id: t.id,
  job_id: t.ref('job'),
  dated: t.day,
  /** Who leads it; several crews of a job have a sheet each. */
  crew: t.text,
  weather: t.filled(t.text, ''),
  notes: t.filled(t.text, ''),
  /** What was left out when two versions met, in words. */
  left_out: t.filled(t.text, ''),
  /** The week sheet its hours went into; empty for none. */
  sheet: t.filled(t.text, ''),
  written_by: t.text,
  written_at: t.moment,
});

export const DayEntryTable = table('day_entry', {
  id: t.id,
  day_sheet_id: t.ref('day_sheet'),
  kind: t.oneOf(...ENTRY_KINDS),
  employee_id: t.orNull(t.ref('employee')),
  section: t.filled(t.text, ''),
  cost_code_id: t.orNull(t.ref('cost_code')),
  work_kind_id: t.orNull(t.ref('work_kind')),
  pay: t.orNull(t.oneOf(...PAY_CLASSES)),
  hours: t.orNull(t.hours),
  quantity: t.orNull(t.quantity),
  unit: t.filled(t.text, ''),
  headcount: t.orNull(t.whole),
  name: t.filled(t.text, ''),
  reference: t.filled(t.text, ''),
  description: t.filled(t.text, ''),
  /** SHA-256 of a picture, which is an attachment of the job. */
  photo: t.filled(t.text, ''),
  charged: t.filled(t.flag, 0),
  /** The signature it stands under; 0 for none. */
  signature: t.filled(t.whole, 0),
});

export const DaySignatureTable = table('day_signature', {
  id: t.id,
  day_sheet_id: t.ref('day_sheet'),
  number: t.whole,
  name: t.text,
  office: t.filled(t.text, ''),
  signed_on: t.day,
  strokes: t.text,
});
