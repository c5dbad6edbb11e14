import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const LAST_CHANGED = query(
  shape({ actor: t.text, at: t.moment }),
  'SELECT actor, at FROM audit WHERE subject = $1 ORDER BY id DESC LIMIT 1',
);
