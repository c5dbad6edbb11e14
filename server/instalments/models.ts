import { t, table } from '../db/fields';

export const InstalmentTable = table('instalment', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.whole,
  name: t.text,
  due: t.text,
  day: t.orNull(t.day),
  days: t.whole,
  taken_from: t.text,
  rate: t.orNull(t.rate),
  amount: t.orNull(t.cents),
});

export const InstalmentStageTable = table('instalment_stage', {
  id: t.id,
  instalment_id: t.ref('instalment'),
  section: t.text,
});
