import { query } from './query';
import { Transaction, type Sequelize } from 'sequelize';
import { Umzug } from 'umzug';
import { shape, t } from './fields';
import { MIGRATIONS } from './migrations/index';
import { sqlOn } from './sql';

const NOTE_TABLE = 'CREATE TABLE IF NOT EXISTS schema_migration (name TEXT PRIMARY KEY, ran_at TEXT NOT NULL)';

/**
 * Brings the schema up to date. A database that has run a migration this version does not know is from a
 * newer Ledrin, and is refused untouched. `copyBefore` is called with the first migration that is to run on a database in use.
 */
export async function migrate(sequelize: Sequelize, copyBefore: (name: string) => Promise<void> = async () => {}): Promise<void> {
  const sql = sqlOn(sequelize);
  const executed = async () => {
    const name = shape({ name: t.text });
    const table = await sql.get(query(name, `SELECT name FROM sqlite_master WHERE name = 'schema_migration'`));
    return table ? (await sql.all(query(name, 'SELECT name FROM schema_migration ORDER BY name'))).map((it) => it.name) : [];
  };
  const known = new Set(MIGRATIONS.map((it) => it.name));
  const newer = (await executed()).filter((name) => !known.has(name));
  if (newer.length > 0) {
    throw new Error(
      `This database was last used by a newer Ledrin (it has ${newer.join(', ')}). Update Ledrin, or open another database with LEDRIN_DB. Nothing was changed.`,
    );
  }
  const done = new Set(await executed());
  const next = MIGRATIONS.find((it) => !done.has(it.name));
  if (done.size > 0 && next) await copyBefore(next.name);
  await sql.run(NOTE_TABLE);
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, statements }) => ({
      name,
      up: () =>
        sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
          const inside = sqlOn(sequelize, { transaction });
          for (const statement of statements) await inside.run(statement);
          await inside.run('INSERT INTO schema_migration (name, ran_at) VALUES ($1, $2)', [name, new Date().toISOString()]);
        }),
    })),
    // The note is written inside each migration's own transaction, so that both happen or neither.
    storage: { executed, logMigration: async () => {}, unlogMigration: async () => {} },
    logger: undefined,
  });
  await umzug.up();
  for (const { table, text } of SCHEMA_SAYS)
    if (!(await sql.get(SAYS, [table, text])))
      throw new Error(
        `The table ${table} of this database is not as Ledrin expects it: it does not say ${text}. Its schema was changed by another program; restore a backup. Nothing was changed.`,
      );
}

/** What a migration wrote into the schema's own text: where the text was another one, it changed nothing, and would say nothing. */
const SCHEMA_SAYS = [
  { table: 'job', text: `'closed', 'lost', 'withdrawn', 'cancelled')` },
  { table: 'job', text: `status IN ('tender', 'lost', 'withdrawn') OR` },
];
const SAYS = query(
  shape({ name: t.text }),
  `SELECT name FROM sqlite_master WHERE type = 'table' AND name = $1 AND instr(sql, $2) > 0`,
);
