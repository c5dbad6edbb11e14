import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const LAST_QUOTATION = query(
  shape({ number: t.orNull(t.whole) }),
  'SELECT max(number) AS number FROM quotation WHERE job_id = $1',
);
