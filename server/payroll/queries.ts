import { shape, t } from '../db/fields';
import { query } from '../db/query';

/** Ids of posted lines worked by day `$1` that were not handed over. */
export const OPEN_TIME = query(
  shape({ id: t.whole }),
  `SELECT id FROM time_line WHERE status = 'posted' AND dated <= $1 AND id NOT IN (SELECT time_line_id FROM payroll_line) ORDER BY id`,
);

export const LINES_OF_RUN = query(
  shape({ id: t.whole }),
  'SELECT time_line_id AS id FROM payroll_line WHERE payroll_run_id = $1 ORDER BY time_line_id',
);

const totals = (where: string) => `(SELECT coalesce(sum(x.hours), 0) FROM time_line x WHERE x.status = 'posted' ${where})`;
const amounts = (where: string) => totals(where).replace('x.hours', 'x.pay_amount');
const HANDED = 'AND x.id IN (SELECT time_line_id FROM payroll_line)';

/** What is posted of all time, what of it was handed over, and what wages clearing has of it. */
export const PROOF = query(
  shape({ hours: t.hours, amount: t.cents, handedHours: t.hours, handedAmount: t.cents, ledger: t.cents }),
  `SELECT ${totals('')} AS hours, ${amounts('')} AS amount, ${totals(HANDED)} AS handedHours, ${amounts(HANDED)} AS handedAmount,
    (SELECT coalesce(sum(l.credit - l.debit), 0) FROM journal_line l JOIN journal j ON j.id = l.journal_id
      JOIN posting p ON p.id = j.posting_id WHERE p.kind = 'time' AND l.account = $1) AS ledger`,
);

export const RUNS = query(
  shape({
    run: t.whole,
    from: t.day,
    to: t.day,
    handedOn: t.day,
    handedBy: t.text,
    people: t.whole,
    hours: t.hours,
    amount: t.cents,
    lines: t.whole,
    usedOn: t.orNull(t.day),
    undoneOn: t.orNull(t.day),
  }),
  `SELECT r.id AS run, r.from_day AS "from", r.to_day AS "to", r.handed_on AS handedOn, r.handed_by AS handedBy,
      count(DISTINCT x.employee_id) AS people, coalesce(sum(x.hours), 0) AS hours, coalesce(sum(x.pay_amount), 0) AS amount,
      count(x.id) AS lines, r.used_on AS usedOn, r.undone_on AS undoneOn
    FROM payroll_run r LEFT JOIN payroll_line p ON p.payroll_run_id = r.id LEFT JOIN time_line x ON x.id = p.time_line_id
    GROUP BY r.id ORDER BY r.id DESC`,
);
