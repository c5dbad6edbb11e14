import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const LAST_TRANSFER = query(
  shape({ number: t.orNull(t.whole) }),
  'SELECT max(number) AS number FROM budget_transfer WHERE job_id = $1',
);
