import { query } from '../db/query';
import { shape, t } from '../db/fields';
import type { CostType } from '../../core/costs/costType';

export const ESTIMATED_LINES = query(
  shape({ id: t.whole, section: t.text, code: t.text, description: t.text, cost_type: t.oneOf<CostType>(), serves: t.text }),
  `SELECT l.id, l.section, c.code, c.description, l.cost_type,
      (SELECT json_group_array(s.line) FROM sov_line s WHERE s.id IN (
        SELECT sov_line_id FROM budget_line WHERE cost_line_id = l.id
        UNION SELECT sov_line_id FROM approved_change_line WHERE side = 'cost' AND cost_line_id = l.id AND decided_on <= $2
      )) AS serves
      FROM cost_line l JOIN cost_code c ON c.id = l.cost_code_id WHERE l.job_id = $1`,
);

export const TURNOVERS = query(
  shape({ account: t.text, debit: t.cents, credit: t.cents }),
  'SELECT l.account, sum(l.debit) AS debit, sum(l.credit) AS credit FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.dated <= $1 GROUP BY l.account',
);

export const COST_TO_DATE = query(
  shape({ amount: t.orNull(t.cents) }),
  'SELECT sum(amount) AS amount FROM cost_entry WHERE posted_on <= $1',
);
