import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { assertShape, shape, t } from '../db/fields';
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
