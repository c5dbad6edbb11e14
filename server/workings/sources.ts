import {
  SCHEDULED_SUM,
  APPROVED_CHANGES,
  COST_BY_TYPE,
  LAST_CERTIFIED,
  RECEIPTS,
  TAX_RATE,
  PENDING_CHANGES,
  LAST_RETENTION,
  RELEASES,
} from './queries';
import { entriesOf, inJob, postingPlace } from '../../core/places/place';
import { present } from '../../core/errors/known';
import { money, type FigureRef } from '../../core/workings/workings';
import { COST_TYPES } from '../../core/costs/costType';
import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import type { JobIdentity } from '../jobs/jobByNumber';
import { chargedPosition, dayworkInvoiced, dayworkOperands } from './ofDaywork';
import { nameOf, ofJob, type Explained } from './figureFamily';
import { placeOfInvoice } from './ofInvoice';
import { scheduleApplied, scheduleDue, scheduleToBill } from './scheduled';
import { beforeTax } from '../costs/jobPositions';

type JobSource = (
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  ref: Partial<FigureRef>,
) => Promise<Explained & { title: string; result?: number }>;

/** A job's figures that stand on postings rather than on other figures. */
const jobSources = {
  contractSum: async (sql, job, asOf) => {
    const { charged, daywork } = await chargedPosition(sql, job, asOf);
    if (charged)
      return {
        title: 'Contract sum',
        rule:
          charged.ceiling === null
            ? 'A charged job without a ceiling is signed for what is charged by the date.'
            : 'A charged job is signed for its ceiling.',
        operands: [
          charged.ceiling === null
            ? money('Charged by the date', daywork.charge, '', { to: inJob(job, 'charging') })
            : money('Ceiling, before tax', charged.ceiling, '', { to: inJob(job, 'job-file') }),
        ],
      };
    const [original] = await sql.all(SCHEDULED_SUM, [job.id]);
    const changes = await sql.all(APPROVED_CHANGES, [job.id, asOf]);
    return {
      title: 'Contract sum',
      rule: 'The schedule of values as signed, plus change orders approved by the date, plus daywork at its charge.',
      operands: [
        money('Schedule of values, original', present(original).amount, '', { to: inJob(job, 'contract') }),
        ...changes.map((it) =>
          money(`${it.number} ${it.title}, approved ${it.decided_on}`, it.amount, '+', { to: inJob(job, 'contract') }),
        ),
        ...(await dayworkOperands(sql, job, asOf)),
      ],
    };
  },
  cost: async (sql, job, asOf) => {
    const rows = await sql.all(COST_BY_TYPE, [job.id, asOf]);
    rows.sort((a, b) => COST_TYPES.indexOf(a.type as 'labour') - COST_TYPES.indexOf(b.type as 'labour'));
    return {
      title: 'Cost to date',
      rule: 'Every cost entry dated on or before the date, whatever it is budgeted under.',
      operands: rows.map((row) => money(row.type, row.amount, '+', { to: entriesOf(job, { type: row.type }) })),
    };
  },
  billed: async (sql, job, asOf) => {
    const last = await sql.get(LAST_CERTIFIED, [job.id, asOf]);
    return {
      title: 'Billed to date',
      rule: 'Gross to date of the last application certified by the date, materials on site included, before retention and tax; and invoices of charged cost, less credits.',
      operands: [
        ...(last
          ? [
              money(`Application ${last.number}, gross to date`, last.gross, '', {
                figure: { figure: 'gross', job: job.number, application: last.number },
                to: inJob(job, 'application', last.number),
              }),
            ]
          : []),
        ...(await dayworkInvoiced(sql, job, asOf)),
      ],
    };
  },
  received: async (sql, job, asOf) => {
    const rows = await sql.all(RECEIPTS, [job.id, asOf]);
    const [facts] = await sql.all(TAX_RATE, [job.id]);
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
    const rows = await sql.all(PENDING_CHANGES, [job.id, asOf]);
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
      rule: 'What invoices ask for, tax included and less what is credited, less what was received on them.',
      operands: rows.map((it) =>
        money(`${it.kind === 'application' ? 'Application ' : ''}${it.invoice}, due ${it.dueOn}`, it.open, '+', {
          to: placeOfInvoice(job, it),
        }),
      ),
    };
  },
  scheduleApplied,
  scheduleDue,
  scheduleToBill,
  retentionHeld: async (sql, job, asOf) => {
    const last = await sql.get(LAST_RETENTION, [job.id, asOf]);
    const released = await sql.all(RELEASES, [job.id, asOf]);
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

/** Each explained from its postings; the result is what the operands come to. */
export const postedFigures = ofJob(Object.keys(jobSources), async (sql, job, ref, asOf) => {
  const source: JobSource = jobSources[ref.figure as keyof typeof jobSources];
  const explained = await source(sql, job, asOf, ref);
  const result = explained.operands.reduce((sum, it) => sum + (it.sign === '−' ? -Number(it.value) : Number(it.value)), 0);
  return { subject: nameOf(job), unit: 'money', result, ...explained };
});
