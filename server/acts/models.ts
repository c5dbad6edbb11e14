import { t, table } from '../db/fields';

export const AuditTable = table('audit', {
  id: t.id,
  at: t.moment,
  actor: t.text,
  command: t.text,
  subject: t.text,
  detail: t.text,
});

export const HandledRequestTable = table('handled_request', {
  id: t.asKey(t.text),
  command: t.text,
  digest: t.text,
  reply: t.text,
  at: t.moment,
});
