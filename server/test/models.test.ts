import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { assertShape, shape, t } from '../db/fields';
import { fillTable, type Sql } from '../db/sql';
import { CostEntryTable } from '../costs/models';
import { cleanUp, temporaryDatabase } from './books';
import { declaredTables } from './declaredTables';

afterAll(cleanUp);

let database: Database;
beforeAll(async () => {
  database = await temporaryDatabase();
});

interface Column {
  name: string;
  type: string;
  notnull: number;
  dflt_value: string | null;
  pk: number;
}

/** What the schema says of a table, in the words of a model. */
function schemaOf(name: string): Promise<Record<string, unknown>> {
  return database.read(async (sql) => {
    const columns = (await sql.anyRows(`PRAGMA table_info(${name})`)) as unknown as Column[];
    const references = new Map(
      (await sql.anyRows(`PRAGMA foreign_key_list(${name})`)).map((it) => [it.from as string, it.table as string]),
    );
    const [{ sql: text = '' } = {}] = await sql.anyRows('SELECT sql FROM sqlite_master WHERE name = $1', [name]);
    const fields = columns.map((it) => {
      const among = new RegExp(`\\b${it.name} IN \\(([^)]*)\\)`).exec(String(text))?.[1];
      return [
        it.name,
        {
          stored: it.type === 'INTEGER' ? 'integer' : 'text',
          nullable: it.notnull === 0 && it.pk === 0,
          filled: it.dflt_value === null ? undefined : it.dflt_value.replace(/^'|'$/g, ''),
          key: it.pk > 0,
          refersTo: references.get(it.name),
          among: among?.match(/'([^']*)'/g)?.map((word) => word.slice(1, -1)),
        },
      ];
    });
    return Object.fromEntries(fields) as Record<string, unknown>;
  });
}

describe('the models', () => {
  test('are of every table and view, and of no other', async () => {
    const declared = (await declaredTables()).map((it) => it.name);
    const there = await database.read((sql) =>
      sql.anyRows(
        `SELECT name FROM sqlite_master WHERE type IN ('table', 'view') AND name NOT LIKE 'cost\\_text%' ESCAPE '\\' AND name <> 'schema_migration'`,
      ),
    );
    expect(declared.toSorted()).toEqual(there.map((it) => it.name as string).toSorted());
  });

  test('say of each column what the schema says: kind, null, default, key, reference, values', async () => {
    for (const { name, fields, ...more } of await declaredTables()) {
      // Of a view the schema knows no more than the columns.
      if ('isView' in more) {
        expect([name, Object.keys(fields).toSorted()]).toEqual([name, Object.keys(await schemaOf(name)).toSorted()]);
        continue;
      }
      const declared = Object.entries(fields).map(([column, it]) => [
        column,
        {
          stored: it.stored,
          nullable: it.nullable,
          filled: it.filled === undefined ? undefined : String(it.filled),
          key: it.key === true,
          refersTo: it.refersTo,
          among: it.among?.map((word) => word),
        },
      ]);
      expect([name, Object.fromEntries(declared)]).toEqual([name, await schemaOf(name)]);
    }
  });
});

/** Where an index was made for one column alone, its condition may only leave out rows in which that column is empty. */
const servesReference = (sql: string | null, column: string) =>
  sql === null || !/ WHERE /.test(sql) || new RegExp(` WHERE ${column} IS NOT NULL$`).test(sql);

describe('the schema', () => {
  test('has an index for every reference: without one the engine reads the whole table for each row that it refers to', async () => {
    const [references, indexed] = await database.read(async (sql) => [
      await sql.anyRows(
        `SELECT m.name AS "table", f."from" AS "column" FROM sqlite_master m, pragma_foreign_key_list(m.name) f WHERE m.type = 'table'`,
      ),
      await sql.anyRows(
        `SELECT m.name AS "table", c.name AS "column", s.sql FROM sqlite_master m, pragma_index_list(m.name) l, pragma_index_info(l.name) c
          LEFT JOIN sqlite_master s ON s.name = l.name WHERE m.type = 'table' AND c.seqno = 0
          UNION ALL SELECT m.name, i.name, NULL FROM sqlite_master m, pragma_table_info(m.name) i WHERE m.type = 'table' AND i.pk = 1`,
      ),
    ]);
    const served = new Set(
      indexed.filter((it) => servesReference(it.sql as string | null, String(it.column))).map((it) => `${it.table}.${it.column}`),
    );
    expect(references.length).toBeGreaterThan(90);
    expect(references.map((it) => `${it.table}.${it.column}`).filter((it) => !served.has(it))).toEqual([]);
  });

  test('keeps the indexes that a table refers to itself by while it is filled, and makes the others afterwards', async () => {
    const indexes = (sql: Sql) =>
      sql
        .anyRows(
          `SELECT name FROM sqlite_master WHERE type = 'index' AND tbl_name = 'cost_entry' AND sql IS NOT NULL ORDER BY name`,
        )
        .then((rows) => rows.map((it) => it.name as string));
    await database.write(async (sql) => {
      const before = await indexes(sql);
      let during: string[] = [];
      await fillTable(sql, CostEntryTable, async () => void (during = await indexes(sql)));
      expect(during).toEqual(['cost_entry_replaced_once', 'cost_entry_reversed_once']);
      expect(await indexes(sql)).toEqual(before);
    });
  });
});

describe('a row of a query', () => {
  const declared = shape({ id: t.whole, name: t.text, day: t.orNull(t.day) });

  test.each([
    [{ id: 1, name: 'a', day: null }, null],
    [{ id: 1, name: 'a', day: '2031-01-01' }, null],
    [{ id: 1, name: 'a' }, /day is missing/],
    [{ id: 1, name: 'a', day: null, other: 2 }, /other is not declared/],
    [{ id: '1', name: 'a', day: null }, /id is string/],
    [{ id: 1, name: null, day: null }, /name is object/],
  ])('%j is of its declared columns, or is refused', (found, refusal) => {
    if (refusal) expect(() => assertShape(declared, found)).toThrow(refusal);
    else assertShape(declared, found);
  });
});
