import { entriesOf, inJob, postingPlace } from '../../core/places/place';
import { present } from '../../core/errors/known';
import { shape, t } from '../db/fields';
import { money, type FigureRef, type Workings } from '../../core/workings/workings';
import { COST_TYPES } from '../../core/costs/costType';
import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import type { JobIdentity } from '../jobs/jobByNumber';
import type { Explained } from './explained';
import { scheduleApplied, scheduleDue, scheduleToBill } from './scheduled';
import { beforeTax } from '../jobs/jobPositions';

type JobSource = (
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  ref: Partial<FigureRef>,
) => Promise<Explained & { title: string; result?: number }>;

/** A job's figures that stand on postings rather than on other figures. */
export const jobSources = {
  contractSum: async (sql, job, asOf) => {
    const [original] = await sql.all(
      shape({ amount: t.cents }),
      'SELECT coalesce(sum(scheduled_value), 0) AS amount FROM sov_line WHERE job_id = $1',
      [job.id],
    );
    const changes = await sql.all(
      shape({ number: t.text, title: t.text, decided_on: t.day, amount: t.cents }),
      `SELECT o.number, o.title, o.decided_on, sum(l.amount) AS amount FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = $1 AND l.side = 'price' AND o.status = 'approved' AND o.decided_on <= $2 GROUP BY o.id ORDER BY o.decided_on`,
      [job.id, asOf],
    );
    return {
      title: 'Contract sum',
      rule: 'The schedule of values as signed, plus change orders approved by the date.',
      operands: [
        money('Schedule of values, original', present(original).amount, '', { to: inJob(job, 'contract') }),
        ...changes.map((it) =>
          money(`${it.number} ${it.title}, approved ${it.decided_on}`, it.amount, '+', { to: inJob(job, 'contract') }),
        ),
      ],
    };
  },
  cost: async (sql, job, asOf) => {
    const rows = await sql.all(
      shape({ type: t.text, amount: t.cents }),
      'SELECT l.cost_type AS type, sum(e.amount) AS amount FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE e.job_id = $1 AND e.posted_on <= $2 GROUP BY 1',
      [job.id, asOf],
    );
    rows.sort((a, b) => COST_TYPES.indexOf(a.type as 'labour') - COST_TYPES.indexOf(b.type as 'labour'));
    return {
      title: 'Cost to date',
      rule: 'Every cost entry dated on or before the date, whatever it is budgeted under.',
      operands: rows.map((row) => money(row.type, row.amount, '+', { to: entriesOf(job, { type: row.type }) })),
    };
  },
  billed: async (sql, job, asOf) => {
    const last = await sql.get(
      shape({ number: t.whole, gross: t.cents }),
      `SELECT number, gross FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number DESC LIMIT 1`,
      [job.id, asOf],
    );
    return {
      title: 'Billed to date',
      rule: 'Gross to date of the last application certified by the date, materials on site included, before retention and tax.',
      operands: last
        ? [
            money(`Application ${last.number}, gross to date`, last.gross, '', {
              figure: { figure: 'gross', job: job.number, application: last.number },
              to: inJob(job, 'application', last.number),
            }),
          ]
        : [],
    };
  },
  received: async (sql, job, asOf) => {
    const rows = await sql.all(
      shape({ posting: t.text, dated: t.day, amount: t.cents, id: t.whole }),
      `SELECT CASE i.kind WHEN 'application' THEN 'application ' ELSE '' END || i.reference AS posting, r.dated, r.amount, r.posting_id AS id
        FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE r.job_id = $1 AND r.dated <= $2 ORDER BY r.dated, r.id`,
      [job.id, asOf],
    );
    const [facts] = await sql.all(shape({ tax_rate: t.rate }), 'SELECT tax_rate FROM job WHERE id = $1', [job.id]);
    const total = rows.reduce((sum, row) => sum + row.amount, 0);
    const result = beforeTax(total, present(facts).tax_rate);
    return {
      title: 'Received, before tax',
      rule: 'Money received by the date, less the tax in it, so that it stands on the scale of the contract.',
      result,
      operands: [
        ...rows.map((row) => money(`${row.dated}, on ${row.posting}`, row.amount, '+', { to: postingPlace(row.id) })),
        money('Tax in it', total - result, '−'),
      ],
    };
  },
  pendingChanges: async (sql, job, asOf) => {
    const rows = await sql.all(
      shape({ number: t.text, title: t.text, amount: t.cents }),
      `SELECT o.number, o.title, sum(l.amount) AS amount FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = $1 AND l.side = 'price' AND o.raised_on <= $2 AND (o.status IN ('draft', 'issued') OR o.decided_on > $2) GROUP BY o.id`,
      [job.id, asOf],
    );
    return {
      title: 'Pending change orders',
      rule: 'Price of change orders raised and not decided by the date. It is in no contract sum until it is approved.',
      operands: rows.map((row) => money(`${row.number} ${row.title}`, row.amount, '+', { to: inJob(job, 'contract') })),
    };
  },
  open: async (sql, job, asOf) => {
    const rows = (await agedInvoices(sql, asOf, job.id)).filter((it) => it.open !== 0);
    return {
      title: 'Outstanding',
      rule: 'What certified applications and releases ask for, tax included, less what was received on them.',
      operands: rows.map((it) =>
        money(`${it.kind === 'application' ? 'Application ' : ''}${it.invoice}, due ${it.dueOn}`, it.open, '+', {
          to: it.kind === 'application' ? inJob(job, 'application', it.invoice) : inJob(job, 'billing'),
        }),
      ),
    };
  },
  scheduleApplied,
  scheduleDue,
  scheduleToBill,
  retentionHeld: async (sql, job, asOf) => {
    const last = await sql.get(
      shape({ number: t.whole, retention: t.cents }),
      `SELECT number, retention FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number DESC LIMIT 1`,
      [job.id, asOf],
    );
    const released = await sql.all(
      shape({ reference: t.text, dated: t.day, amount: t.cents, posting: t.whole }),
      'SELECT reference, dated, amount, posting_id AS posting FROM retention_release WHERE job_id = $1 AND dated <= $2',
      [job.id, asOf],
    );
    return {
      title: 'Retention held',
      rule: 'Retention to date of the last certified application, less what was released.',
      operands: [
        ...(last
          ? [
              money(`Application ${last.number}, retention to date`, last.retention, '', {
                figure: { figure: 'retention', job: job.number, application: last.number },
              }),
            ]
          : []),
        ...released.map((it) => money(`${it.reference}, ${it.dated}`, it.amount, '−', { to: postingPlace(it.posting) })),
      ],
    };
  },
} satisfies Record<string, JobSource>;

/** Explains a figure of a job from its postings; the result is what the operands come to. */
export async function fromPostings(
  sql: Reader,
  job: JobIdentity,
  figure: keyof typeof jobSources,
  asOf: string,
  ref: Partial<FigureRef>,
): Promise<Workings> {
  const source: JobSource = jobSources[figure];
  const explained = await source(sql, job, asOf, ref);
  const result = explained.operands.reduce((sum, it) => sum + (it.sign === '−' ? -Number(it.value) : Number(it.value)), 0);
  return { subject: `Job ${job.number} ${job.name}`, unit: 'money', result, ...explained };
}

/** What is open on one invoice: what it asks for, less every receipt on it. */
export async function explainOpen(
  sql: Reader,
  job: Pick<JobIdentity, 'id' | 'number' | 'name'>,
  posting: string,
  asOf: string,
): Promise<Workings> {
  const isNumber = /^\d+$/.test(posting);
  const invoice = await sql.get(
    shape({ id: t.whole, asked: t.cents }),
    'SELECT id, payable AS asked FROM invoice WHERE job_id = $1 AND reference = $2 AND posted_on <= $3',
    [job.id, posting, asOf],
  );
  const receipts = invoice
    ? await sql.all(
        shape({ dated: t.day, amount: t.cents, reference: t.text, posting: t.whole }),
        'SELECT dated, amount, reference, posting_id AS posting FROM receipt WHERE invoice_id = $1 AND dated <= $2 ORDER BY dated, id',
        [invoice.id, asOf],
      )
    : [];
  const asked = invoice?.asked ?? 0;
  const ways = isNumber
    ? { figure: { figure: 'payable', job: job.number, application: Number(posting) } }
    : { to: inJob(job, 'billing') };
  return {
    title: 'Outstanding',
    subject: `Job ${job.number} ${job.name}, ${isNumber ? `application ${posting}` : posting}`,
    rule: 'What it asks for, tax included, less what was received on it by the date.',
    operands: [
      money('Payable', asked, '', ways),
      ...receipts.map((it) =>
        money(`Received ${it.dated} ${it.reference}`.trim(), it.amount, '−', { to: postingPlace(it.posting) }),
      ),
    ],
    result: asked - receipts.reduce((sum, it) => sum + it.amount, 0),
    unit: 'money',
  };
}
