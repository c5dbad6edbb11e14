import type { Fault } from '../../core/errors/ledrinError';
import { LIST_FACTS, LIST_FACT_NAMES, type ListFact, type ListFacts } from '../../core/jobs/listFacts';
import { DepartmentTable, JobKindTable } from '../company/models';
import type { Reader } from '../db/sql';
import { WorkKindTable } from '../labour/models';

type Column = (typeof LIST_FACTS)[ListFact]['column'];
export type ListColumns = Record<Column, number | null>;

/** A row of one of the lists; a kind of work is never closed to new use. */
interface Listed {
  id: number;
  code: string;
  closed: boolean;
}

const LISTS: Record<ListFact, (sql: Reader) => Promise<Listed[]>> = {
  kind: async (sql) => (await sql.find(JobKindTable, {})).map(({ id, code, closed }) => ({ id, code, closed: closed === 1 })),
  department: async (sql) =>
    (await sql.find(DepartmentTable, {})).map(({ id, code, closed }) => ({ id, code, closed: closed === 1 })),
  workKind: async (sql) => (await sql.find(WorkKindTable, {})).map(({ id, code }) => ({ id, code, closed: false })),
};

/** What a job is of in the company's lists, by code. */
export async function listFactsOf(sql: Reader, row: ListColumns): Promise<ListFacts> {
  const facts = await Promise.all(
    LIST_FACT_NAMES.map(async (name) => {
      const id = row[LIST_FACTS[name].column];
      return [name, id === null ? '' : ((await LISTS[name](sql)).find((it) => it.id === id)?.code ?? '')] as const;
    }),
  );
  return Object.fromEntries(facts) as ListFacts;
}

/** The columns of a job that is of these, and a fault where one is not in its list, or closed to new use and not as it `was`. */
export async function listColumnsOf(
  sql: Reader,
  facts: Partial<ListFacts>,
  was: Partial<ListFacts> = {},
): Promise<{ columns: ListColumns; faults: Fault[] }> {
  const columns: ListColumns = { job_kind_id: null, department_id: null, work_kind_id: null };
  const faults: Fault[] = [];
  for (const name of LIST_FACT_NAMES) {
    const code = facts[name] ?? '';
    if (code === '') continue;
    const { column, one } = LIST_FACTS[name];
    const found = (await LISTS[name](sql)).find((it) => it.code === code);
    if (!found || (found.closed && was[name] !== code))
      faults.push({
        field: name,
        message: `There is no ${one} ${code} open to new use; add it in Set-up first, or choose another`,
      });
    else columns[column] = found.id;
  }
  return { columns, faults };
}
