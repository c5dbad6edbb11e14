import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import { bookFile } from '../../bookFormat/bookFile';
import { days, oneOf, percent, REQUIRED, text, yesNo, type Row } from '../../bookFormat/columns';
import { WorkKindTable } from '../../labour/models';
import { DepartmentTable, JobKindTable } from '../models';

const CLOSED = yesNo('closed to new use');

export const workKinds = bookFile({
  name: 'work_kinds',
  columns: { work_kind: text(REQUIRED), description: text(REQUIRED) },
  key: ['work_kind'],
  called: 'kind of work',
  query: 'SELECT id, code AS work_kind, description FROM work_kind',
  save: (rows, into): Promise<void> => into.keyed(workKinds, WorkKindTable, rows, (row) => [row.work_kind], workKindValues),
});

/** A row of the file as it is saved. */
export const workKindValues = (row: Row<typeof workKinds.columns>) => ({ code: row.work_kind, description: row.description });

export const departments = bookFile({
  name: 'departments',
  columns: { department: text(REQUIRED), name: text(REQUIRED), closed: CLOSED },
  key: ['department'],
  called: 'department',
  query: 'SELECT id, code AS department, name, closed FROM department',
  save: (rows, into): Promise<void> =>
    into.keyed(
      departments,
      DepartmentTable,
      rows,
      (row) => [row.department],
      (row) => ({ code: row.department, name: row.name, closed: row.closed ? 1 : 0 }),
    ),
});

export const jobKinds = bookFile({
  name: 'job_kinds',
  columns: {
    kind: text(REQUIRED),
    name: text(REQUIRED),
    retention_percent: percent(),
    revenue_method: oneOf(REVENUE_METHODS)(),
    terms_days: days(),
    work_kind: text(),
    pay_code: text(),
    checklist: text('a checklist saved under a name'),
    closed: CLOSED,
  },
  key: ['kind'],
  called: 'kind of job',
  refers: { work_kind: { to: workKinds } },
  query: `SELECT j.id, j.code AS kind, j.name, j.retention_rate AS retention_percent, nullif(j.revenue_method, '') AS revenue_method, j.terms_days,
    k.code AS work_kind, j.pay_code, j.checklist, j.closed FROM job_kind j LEFT JOIN work_kind k ON k.id = j.work_kind_id`,
  save: (rows, into): Promise<void> =>
    into.keyed(
      jobKinds,
      JobKindTable,
      rows,
      (row) => [row.kind],
      (row) => ({
        code: row.kind,
        name: row.name,
        retention_rate: row.retention_percent,
        revenue_method: row.revenue_method ?? ('' as const),
        terms_days: row.terms_days,
        work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
        pay_code: row.pay_code ?? '',
        checklist: row.checklist ?? '',
        closed: row.closed ? 1 : 0,
      }),
    ),
});
