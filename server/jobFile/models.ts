import { t, table } from '../db/fields';

export const JobPersonTable = table('job_person', {
  id: t.id,
  job_id: t.ref('job'),
  side: t.oneOf('client', 'team'),
  name: t.text,
  role: t.text,
  email: t.text,
  phone: t.text,
});

export const JobEventTable = table('job_event', {
  id: t.id,
  job_id: t.ref('job'),
  kind: t.oneOf('note', 'call', 'meeting', 'visit', 'letter'),
  dated: t.day,
  text: t.text,
  actor: t.text,
  recorded_at: t.moment,
});

export const JobCheckTable = table('job_check', {
  id: t.id,
  job_id: t.ref('job'),
  item: t.text,
  person: t.text,
  due_on: t.orNull(t.day),
  done_on: t.orNull(t.day),
});

export const CheckTemplateTable = table('check_template', {
  id: t.id,
  name: t.text,
  items: t.text,
});

export const AttachmentTable = table('attachment', {
  id: t.id,
  job_id: t.ref('job'),
  name: t.text,
  media_type: t.text,
  size: t.whole,
  hash: t.text,
  about: t.text,
  /** Those who work on site see it. */
  for_site: t.filled(t.flag, 0),
  actor: t.text,
  added_at: t.moment,
});
