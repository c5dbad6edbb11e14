import { CHARGE_MARKS } from '../../core/charging/chargeMark';
import { COST_TYPES } from '../../core/costs/costType';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const name = (column: string) => `coalesce(${column}, '')`;

/** That entry `m.cost_entry_id` is on invoice `d`, of which nothing was credited in full. */
const TAKEN_BY = `SELECT d.reference FROM daywork_line x JOIN daywork_invoice d ON d.id = x.daywork_invoice_id
  LEFT JOIN invoice i ON i.posting_id = d.posting_id
  WHERE x.cost_entry_id = m.cost_entry_id AND NOT EXISTS (SELECT 1 FROM invoice_credit c WHERE c.invoice_id = i.id AND c.in_full = 1)`;

const MARKED_ENTRY = shape({
  id: t.whole,
  jobId: t.whole,
  job: t.text,
  client: t.text,
  dated: t.day,
  costType: t.oneOf(...COST_TYPES),
  amount: t.cents,
  markup: t.orNull(t.rate),
  charge: t.cents,
  reference: t.text,
  countsFrom: t.day,
  mark: t.oneOf(...CHARGE_MARKS),
  /** Of a line of time, else null. */
  timeLine: t.orNull(t.whole),
  hours: t.orNull(t.hours),
  workKind: t.text,
  employee: t.text,
  wageClass: t.text,
});

const freeMarkedEntries = (where: string) =>
  query(
    MARKED_ENTRY,
    `SELECT e.id, m.job_id AS jobId, job.number AS job, c.code AS client, e.dated, l.cost_type AS costType, e.amount, m.markup, m.charge, e.reference, m.counts_from AS countsFrom, m.mark,
      e.time_line_id AS timeLine, e.hours, ${name('k.code')} AS workKind, ${name('p.code')} AS employee,
      coalesce(nullif(x.wage_class, ''), p.wage_class, '') AS wageClass
    FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id JOIN cost_line l ON l.id = e.cost_line_id
    JOIN job ON job.id = m.job_id JOIN client c ON c.id = job.client_id
    LEFT JOIN time_line x ON x.id = e.time_line_id LEFT JOIN employee p ON p.id = x.employee_id LEFT JOIN work_kind k ON k.id = x.work_kind_id
    WHERE ${where} AND NOT EXISTS (${TAKEN_BY})`,
  );

/* Entries with a mark which no invoice has, with all that their charge is worked from. */

/** Of the jobs in the JSON list `$1` or, where that is null, of all. */
export const FREE_OF_JOBS = freeMarkedEntries('($1 IS NULL OR m.job_id IN (SELECT value FROM json_each($1)))');
/** Those in the JSON list `$1`. */
export const FREE_OF_ENTRIES = freeMarkedEntries('m.cost_entry_id IN (SELECT value FROM json_each($1))');

/** `$1` lists `[entry, charge]`. */
export const SAVE_CHARGES = `UPDATE charge_mark SET charge = v.value->>1 FROM json_each($1) v WHERE charge_mark.cost_entry_id = v.value->>0`;

export const CHARGE_RATES = query(
  shape({ from: t.day, job: t.text, client: t.text, workKind: t.text, employee: t.text, wageClass: t.text, rate: t.unitCost }),
  `SELECT r.from_day AS "from", ${name('j.number')} AS job, ${name('c.code')} AS client, ${name('k.code')} AS workKind,
      ${name('p.code')} AS employee, r.wage_class AS wageClass, r.rate
    FROM charge_rate r LEFT JOIN job j ON j.id = r.job_id LEFT JOIN client c ON c.id = r.client_id
    LEFT JOIN work_kind k ON k.id = r.work_kind_id LEFT JOIN employee p ON p.id = r.employee_id`,
);

export const CHARGE_MARKUPS = query(
  shape({ job: t.text, costType: t.oneOf(...COST_TYPES), markup: t.rate }),
  'SELECT j.number AS job, m.cost_type AS costType, m.markup FROM charge_markup m JOIN job j ON j.id = m.job_id',
);

/** Of the jobs in the JSON list `$1`, those that are charged. */
export const CHARGED_AMONG = query(
  shape({ id: t.whole }),
  `SELECT id FROM job WHERE pricing = 'charged' AND id IN (SELECT value FROM json_each($1))`,
);

/** The marks of entries in the JSON list `$1`. */
export const MARKS_OF = query(
  shape({
    id: t.whole,
    jobId: t.whole,
    mark: t.oneOf(...CHARGE_MARKS),
    chargeFrom: t.orNull(t.day),
    markup: t.orNull(t.rate),
    wording: t.text,
  }),
  `SELECT cost_entry_id AS id, job_id AS jobId, mark, charge_from AS chargeFrom, markup, wording FROM charge_mark WHERE cost_entry_id IN (SELECT value FROM json_each($1))`,
);

/** The marks of the pay of lines of time in the JSON list `$1`. */
export const MARKS_OF_TIME = query(
  shape({
    timeLine: t.whole,
    mark: t.oneOf(...CHARGE_MARKS),
    chargeFrom: t.orNull(t.day),
    markup: t.orNull(t.rate),
    wording: t.text,
  }),
  `SELECT e.time_line_id AS timeLine, m.mark, m.charge_from AS chargeFrom, m.markup, m.wording FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id
    WHERE e.time_line_id IN (SELECT value FROM json_each($1)) AND e.hours IS NOT NULL`,
);

const ChargeEntryRow = shape({
  id: t.whole,
  jobId: t.whole,
  job: t.text,
  client: t.text,
  dated: t.day,
  postedOn: t.day,
  countsFrom: t.day,
  reference: t.text,
  party: t.text,
  description: t.text,
  wording: t.text,
  section: t.text,
  costCode: t.text,
  costType: t.oneOf(...COST_TYPES),
  hours: t.orNull(t.hours),
  amount: t.cents,
  charge: t.cents,
  mark: t.oneOf(...CHARGE_MARKS),
  chargeFrom: t.orNull(t.day),
  markup: t.orNull(t.rate),
  timeLine: t.orNull(t.whole),
  workKind: t.text,
  employee: t.text,
  wageClass: t.text,
  postingId: t.whole,
  codeName: t.text,
  sheet: t.orNull(t.text),
  takenBy: t.orNull(t.text),
});

const CODE_NAME = '(SELECT description FROM cost_code WHERE code = l.cost_code)';
const chargeEntries = (where: string) =>
  query(
    ChargeEntryRow,
    `SELECT e.id, e.job_id AS jobId, job.number AS job, c.code AS client, e.dated, e.posted_on AS postedOn, coalesce(m.counts_from, e.posted_on) AS countsFrom,
      e.reference, coalesce(p.name, e.party) AS party, e.description, coalesce(m.wording, '') AS wording, l.section, l.cost_code AS costCode, l.cost_type AS costType, e.hours,
      e.amount, coalesce(m.charge, 0) AS charge, coalesce(m.mark, 'no') AS mark, m.charge_from AS chargeFrom, m.markup, e.time_line_id AS timeLine,
      ${name('k.code')} AS workKind, ${name('p.code')} AS employee, coalesce(nullif(x.wage_class, ''), p.wage_class, '') AS wageClass,
      e.posting_id AS postingId, x.sheet, ${CODE_NAME} AS codeName, (${TAKEN_BY}) AS takenBy
    FROM cost_entry e JOIN named_cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id JOIN client c ON c.id = job.client_id
    LEFT JOIN charge_mark m ON m.cost_entry_id = e.id
    LEFT JOIN time_line x ON x.id = e.time_line_id LEFT JOIN employee p ON p.id = x.employee_id LEFT JOIN work_kind k ON k.id = x.work_kind_id
    WHERE ${where} ORDER BY e.dated, e.id`,
  );

/** Entries of the jobs in the JSON list `$1` that are charged or wait by `$2`. */
export const MARKED_OF_JOBS = chargeEntries(
  `m.job_id IN (SELECT value FROM json_each($1)) AND m.mark <> 'no' AND e.posted_on <= $2`,
);
/** The same with what an invoice needs of them alone, for a run over many jobs. */
export const RUN_ENTRIES_OF_JOBS = query(
  shape({
    id: t.whole,
    jobId: t.whole,
    job: t.text,
    dated: t.day,
    countsFrom: t.day,
    reference: t.text,
    party: t.text,
    description: t.text,
    wording: t.text,
    costCode: t.text,
    costType: t.oneOf(...COST_TYPES),
    hours: t.orNull(t.hours),
    amount: t.cents,
    charge: t.cents,
    mark: t.oneOf(...CHARGE_MARKS),
    timeLine: t.orNull(t.whole),
    codeName: t.text,
    takenBy: t.orNull(t.text),
  }),
  `SELECT e.id, e.job_id AS jobId, job.number AS job, e.dated, m.counts_from AS countsFrom, e.reference, coalesce(p.name, e.party) AS party, e.description,
      m.wording, l.cost_code AS costCode, l.cost_type AS costType, e.hours, e.amount, m.charge, m.mark, e.time_line_id AS timeLine,
      ${CODE_NAME} AS codeName, (${TAKEN_BY}) AS takenBy
    FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id JOIN named_cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id
    LEFT JOIN time_line x ON x.id = e.time_line_id LEFT JOIN employee p ON p.id = x.employee_id
    WHERE m.job_id IN (SELECT value FROM json_each($1)) AND m.mark <> 'no' AND e.posted_on <= $2 ORDER BY e.dated, e.id`,
);
/** The other entries of job `$1` posted by `$2`, the newest 2,000. */
export const OTHERS_OF_JOB = chargeEntries(
  `e.id IN (SELECT o.id FROM cost_entry o LEFT JOIN charge_mark n ON n.cost_entry_id = o.id WHERE o.job_id = $1 AND o.posted_on <= $2 AND coalesce(n.mark, 'no') = 'no' ORDER BY o.posted_on DESC, o.id DESC LIMIT 2000)`,
);
/** Those in the JSON list `$1`, the pay and the burden of a line of time together. */
export const CHARGE_ENTRIES_OF_IDS = chargeEntries(
  `e.id IN (SELECT value FROM json_each($1) UNION SELECT o.id FROM cost_entry o JOIN cost_entry q ON q.time_line_id = o.time_line_id WHERE q.id IN (SELECT value FROM json_each($1)))`,
);

/** Of entries on issued invoices that are not credited in full, all their charge is worked from; \`charge\`: what it was issued with. */
export const INVOICED_ENTRIES = query(
  MARKED_ENTRY,
  `SELECT e.id, e.job_id AS jobId, job.number AS job, c.code AS client, e.dated, l.cost_type AS costType, e.amount, m.markup, x.charge, e.reference, m.counts_from AS countsFrom, m.mark,
      e.time_line_id AS timeLine, e.hours, ${name('k.code')} AS workKind, ${name('p.code')} AS employee,
      coalesce(nullif(y.wage_class, ''), p.wage_class, '') AS wageClass
    FROM daywork_line x JOIN daywork_invoice d ON d.id = x.daywork_invoice_id JOIN cost_entry e ON e.id = x.cost_entry_id
    JOIN charge_mark m ON m.cost_entry_id = e.id JOIN cost_line l ON l.id = e.cost_line_id
    JOIN job ON job.id = e.job_id JOIN client c ON c.id = job.client_id JOIN invoice i ON i.posting_id = d.posting_id
    LEFT JOIN time_line y ON y.id = e.time_line_id LEFT JOIN employee p ON p.id = y.employee_id LEFT JOIN work_kind k ON k.id = y.work_kind_id
    WHERE NOT EXISTS (SELECT 1 FROM invoice_credit z WHERE z.invoice_id = i.id AND z.in_full = 1) ORDER BY e.id`,
);

/** Marks every entry of job `$1` without a mark as charged. */
export const MARK_ALL = `INSERT INTO charge_mark (cost_entry_id, job_id, mark, counts_from, charge)
  SELECT e.id, e.job_id, 'yes', e.posted_on, 0 FROM cost_entry e WHERE e.job_id = $1 AND NOT EXISTS (SELECT 1 FROM charge_mark m WHERE m.cost_entry_id = e.id)`;
