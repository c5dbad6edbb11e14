import { hasRight, RIGHTS, ROLES } from '../core/rights/rights';
import { openDatabase } from '../server/db/database';
import { Workers } from '../server/workers/workers';

type Print = (what: string, ours: number, bare: number, note?: string) => void;
type Median = (work: () => Promise<unknown>, runs?: number) => Promise<number>;

/** What asking for rights costs a request, what reading a team's jobs alone does, and how long one waits to be let in. */
export async function benchRights(file: string, median: Median, print: Print): Promise<void> {
  const database = await openDatabase(file);
  const workers = new Workers();
  const small = () => database.read((sql) => sql.anyRows('SELECT count(*) AS n FROM job WHERE id = 1'));
  const bare = await median(small, 21);
  const asked = async () => ROLES.forEach((role) => RIGHTS.forEach((right) => hasRight({ role }, right)));
  print('every right of every role, asked once', await median(asked, 21), bare, 'goal 1 ms');
  const narrowed = database.narrowed([1, 2, 3]);
  print(
    'a small read of a team of three jobs',
    await median(() => narrowed.read((sql) => sql.anyRows('SELECT count(*) AS n FROM job WHERE id = 1')), 21),
    bare,
  );
  const scrypt = () => workers.run('matchesPassword', 'rain on the roof', '');
  print('one who signs in', await median(scrypt, 5), bare, 'goal 1,000 ms');
  await workers.close();
  await database.close();
}
