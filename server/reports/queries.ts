import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const TURNOVERS = query(
  shape({ account: t.text, debit: t.cents, credit: t.cents }),
  'SELECT l.account, sum(l.debit) AS debit, sum(l.credit) AS credit FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.dated <= $1 GROUP BY l.account',
);

export const COST_TO_DATE = query(
  shape({ amount: t.orNull(t.cents) }),
  'SELECT sum(amount) AS amount FROM cost_entry WHERE posted_on <= $1',
);
