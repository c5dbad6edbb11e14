import { NO_MORE, type MasterKind } from '../../core/masters/masters';
import type { MasterInput } from '../../wire/masters';
import { ClientTable, CostCodeTable, DepartmentTable, JobKindTable, PersonTable, VendorTable } from '../company/models';
import { WorkKindTable } from '../labour/models';
import { fieldError } from '../acts/refused';
import { CheckTemplateTable } from '../jobFile/models';
import type { NewRow, RowOf, Where } from '../db/fields';
import type { Order, Reader, Sql } from '../db/sql';

/** A row of whatever kind, as it is entered. */
export interface SavedMaster extends MasterInput {
  id: number;
}

/** Where the rows of a kind are kept. */
interface Store {
  /** All of them, by code. */
  all(sql: Reader): Promise<SavedMaster[]>;
  /** Adds one where it has no id yet, else writes over it. */
  write(sql: Sql, it: MasterInput, id: number | null): Promise<void>;
  remove(sql: Sql, id: number): Promise<void>;
}

function storeOf<
  T extends typeof ClientTable | typeof VendorTable | typeof CostCodeTable | typeof PersonTable | typeof DepartmentTable,
>(
  table: T,
  order: Order<T>,
  masterOf: (row: RowOf<T>) => Omit<SavedMaster, keyof typeof NO_MORE> & Partial<SavedMaster>,
  rowOf: (it: MasterInput, closed: 0 | 1) => Partial<RowOf<T>> & NewRow<T>,
): Store {
  const where = (id: number) => ({ id }) as Where<T>;
  return {
    all: async (sql) => (await sql.find(table, {} as Where<T>, order)).map((row) => ({ ...NO_MORE, ...masterOf(row) })),
    async write(sql, it, id) {
      const row = rowOf(it, it.closed ? 1 : 0);
      if (id === null) await sql.insert(table, row);
      else await sql.update(table, where(id), row);
    },
    remove: (sql, id) => sql.remove(table, where(id)),
  };
}

const party = (it: MasterInput) => ({
  code: it.code,
  name: it.name,
  contact: it.contact,
  email: it.email,
  phone: it.phone,
  address: it.address,
  terms_days: it.termsDays,
});
const partyOf = ({ terms_days: termsDays, closed, ...row }: Omit<RowOf<typeof ClientTable>, 'never_certifies'>) => ({
  ...row,
  termsDays,
  closed: closed === 1,
});

/** Kinds of job name a kind of work and a checklist, which have to be there. */
const jobKinds: Store = {
  async all(sql) {
    const works = new Map((await sql.find(WorkKindTable, {})).map((it) => [it.id, it.code]));
    return (await sql.find(JobKindTable, {}, ['code'])).map((row) => ({
      ...NO_MORE,
      id: row.id,
      code: row.code,
      name: row.name,
      closed: row.closed === 1,
      retentionRate: row.retention_rate,
      revenueMethod: row.revenue_method,
      termsDays: row.terms_days,
      workKind: works.get(row.work_kind_id ?? 0) ?? '',
      payCode: row.pay_code,
      checklist: row.checklist,
    }));
  },
  async write(sql, it, id) {
    const work = it.workKind === '' ? null : await sql.findOne(WorkKindTable, { code: it.workKind });
    if (work === undefined)
      throw fieldError('workKind', `There is no kind of work ${it.workKind}; add it in Set-up, Kinds of work, or leave it empty`);
    if (it.checklist !== '' && !(await sql.findOne(CheckTemplateTable, { name: it.checklist })))
      throw fieldError('checklist', `There is no checklist saved as ${it.checklist}; save one in a job file, or leave it empty`);
    const row = {
      code: it.code,
      name: it.name,
      closed: it.closed ? (1 as const) : (0 as const),
      retention_rate: it.retentionRate,
      revenue_method: it.revenueMethod,
      terms_days: it.termsDays,
      work_kind_id: work?.id ?? null,
      pay_code: it.payCode,
      checklist: it.checklist,
    };
    if (id === null) await sql.insert(JobKindTable, row);
    else await sql.update(JobKindTable, { id }, row);
  },
  remove: (sql, id) => sql.remove(JobKindTable, { id }),
};

export const STORES: Record<MasterKind, Store> = {
  clients: storeOf(
    ClientTable,
    ['code'],
    ({ never_certifies: never, ...row }) => ({ ...partyOf(row), neverCertifies: never === 1 }),
    (it, closed) => ({ ...party(it), closed, never_certifies: it.neverCertifies ? 1 : 0 }),
  ),
  vendors: storeOf(
    VendorTable,
    ['code'],
    ({ kind, ...row }) => ({ ...partyOf(row), kind }),
    (it, closed) => ({ ...party(it), kind: it.kind, closed }),
  ),
  'cost-codes': storeOf(
    CostCodeTable,
    ['code'],
    ({ id, code, description, unit, closed }) => ({ id, code, name: description, unit, closed: closed === 1 }),
    (it, closed) => ({ code: it.code, description: it.name, unit: it.unit, closed }),
  ),
  'job-kinds': jobKinds,
  departments: storeOf(
    DepartmentTable,
    ['code'],
    ({ id, code, name, closed }) => ({ id, code, name, closed: closed === 1 }),
    (it, closed) => ({ code: it.code, name: it.name, closed }),
  ),
  people: storeOf(
    PersonTable,
    ['name'],
    ({ id, name, role, email, phone, closed }) => ({ id, code: name, name: role, email, phone, closed: closed === 1 }),
    (it, closed) => ({ name: it.code, role: it.name, email: it.email, phone: it.phone, closed }),
  ),
};
