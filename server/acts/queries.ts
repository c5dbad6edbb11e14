import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const HANDLED_REQUEST = query(
  shape({ digest: t.text, reply: t.text, at: t.moment }),
  'SELECT digest, reply, at FROM handled_request WHERE id = $1',
);

/** Those handled before `$1`. */
export const FORGET_REQUESTS = 'DELETE FROM handled_request WHERE at < $1';
