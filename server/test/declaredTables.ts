import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Table } from '../db/fields';

/** Every table a noun declares: all that `models.ts` of any folder exports. */
export async function declaredTables(): Promise<Table[]> {
  const server = join(import.meta.dirname, '..');
  const files = readdirSync(server).filter((noun) => noun !== 'db' && existsSync(join(server, noun, 'models.ts')));
  const modules = await Promise.all(files.map((noun) => import(`../${noun}/models.ts`) as Promise<Record<string, Table>>));
  return modules.flatMap((it) => Object.values(it));
}
