import { CHARGE_RUNG_NAMES, chargeRungOf } from '../../../core/charging/chargeRates';
import { COST_TYPES } from '../../../core/costs/costType';
import { refuse } from '../../../core/refusals/refusal';
import { bookFile } from '../../bookFormat/bookFile';
import { date, isWhole, markup, oneOf, REQUIRED, text, unitCost, type Row } from '../../bookFormat/columns';
import type { BookSave } from '../../bookFormat/bookSave';
import { customers } from '../../company/book/bookFiles';
import { workKinds } from '../../company/book/listBookFiles';
import { jobs } from '../../jobs/bookFiles';
import { employees, ofClass } from '../../labour/bookFiles';
import { ChargeMarkupTable, ChargeRateTable } from '../models';

export const chargeRates = bookFile({
  name: 'charge_rates',
  columns: {
    from: date(REQUIRED),
    job: text(),
    customer: text('where it is of one client; then of no job'),
    work_kind: text(),
    employee: text(),
    wage_class: text(),
    equipment: text('exactly one of the last four; there is no list of equipment yet'),
    rate: unitCost(REQUIRED),
  },
  key: ['from', 'job', 'customer', 'work_kind', 'employee', 'wage_class'],
  refers: {
    job: { to: jobs },
    customer: { to: customers },
    work_kind: { to: workKinds },
    employee: { to: employees },
    wage_class: ofClass,
  },
  query: `SELECT r.id, r.from_day AS "from", j.number AS job, c.code AS customer, k.code AS work_kind, e.code AS employee, r.wage_class,
      NULL AS equipment, r.rate
    FROM charge_rate r LEFT JOIN job j ON j.id = r.job_id LEFT JOIN client c ON c.id = r.client_id
    LEFT JOIN work_kind k ON k.id = r.work_kind_id LEFT JOIN employee e ON e.id = r.employee_id`,
  check(row, book) {
    if (row.equipment)
      book.fault(chargeRates, row, 'equipment', `unknown reference: there is no piece of equipment ${row.equipment}`);
    if (!isWhole(row) || row.equipment) return;
    const { job, customer, work_kind: workKind, employee, wage_class: wageClass } = row;
    const rung = chargeRungOf({
      job: job ?? '',
      client: customer ?? '',
      workKind: workKind ?? '',
      employee: employee ?? '',
      wageClass: wageClass ?? '',
    });
    const at = job && customer ? 'customer' : 'wage_class';
    if (rung === null || !CHARGE_RUNG_NAMES.includes(rung)) book.refuse(chargeRates, row, refuse('charge-rate-cells', at, {}));
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      ChargeRateTable,
      rows.map((row) => chargeRateValues(row, into)),
    ),
});

/** A row as it is saved. */
export const chargeRateValues = (row: Row<typeof chargeRates.columns>, into: BookSave) => ({
  from_day: row.from,
  job_id: row.job ? into.id(jobs, row.job) : null,
  client_id: row.customer ? into.id(customers, row.customer) : null,
  work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
  employee_id: row.employee ? into.id(employees, row.employee) : null,
  wage_class: row.wage_class ?? '',
  rate: row.rate,
});

export const dayworkTerms = bookFile({
  name: 'daywork_terms',
  columns: { job: text(REQUIRED), cost_type: oneOf(COST_TYPES)(REQUIRED), markup_percent: markup(REQUIRED) },
  key: ['job', 'cost_type'],
  takenBy: 'unlocked',
  refers: { job: { to: jobs } },
  query:
    'SELECT m.id, j.number AS job, m.cost_type, m.markup AS markup_percent FROM charge_markup m JOIN job j ON j.id = m.job_id',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      ChargeMarkupTable,
      rows.map((row) => ({ job_id: into.id(jobs, row.job), cost_type: row.cost_type, markup: row.markup_percent })),
    ),
});
