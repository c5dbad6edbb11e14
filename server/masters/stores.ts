import type { MasterKind } from '../../core/masters/masters';
import type { MasterInput } from '../../wire/masters';
import { ClientTable, CostCodeTable, PersonTable, VendorTable } from '../company/models';
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

const NONE = { kind: '', contact: '', email: '', phone: '', address: '', termsDays: null, unit: '' } as const;

function storeOf<T extends typeof ClientTable | typeof VendorTable | typeof CostCodeTable | typeof PersonTable>(
  table: T,
  order: Order<T>,
  masterOf: (row: RowOf<T>) => Omit<SavedMaster, keyof typeof NONE> & Partial<SavedMaster>,
  rowOf: (it: MasterInput, closed: 0 | 1) => Partial<RowOf<T>> & NewRow<T>,
): Store {
  const where = (id: number) => ({ id }) as Where<T>;
  return {
    all: async (sql) => (await sql.find(table, {} as Where<T>, order)).map((row) => ({ ...NONE, ...masterOf(row) })),
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
const partyOf = ({ terms_days: termsDays, closed, ...row }: RowOf<typeof ClientTable>) => ({
  ...row,
  termsDays,
  closed: closed === 1,
});

export const STORES: Record<MasterKind, Store> = {
  clients: storeOf(ClientTable, ['code'], partyOf, (it, closed) => ({ ...party(it), closed })),
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
  people: storeOf(
    PersonTable,
    ['name'],
    ({ id, name, role, email, phone, closed }) => ({ id, code: name, name: role, email, phone, closed: closed === 1 }),
    (it, closed) => ({ name: it.code, role: it.name, email: it.email, phone: it.phone, closed }),
  ),
};
