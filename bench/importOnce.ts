// One import in a process of its own, so that its peak memory can be told. Prints it in MB.
import { importBook } from '../server/book/importBook';
import { openDatabase } from '../server/db/database';
import { act } from '../server/test/act';

const [folder, file] = process.argv.slice(2) as [string, string];
const database = await openDatabase(file);
const stores = { files: `${file}-files`, outbox: `${file}-outbox` };
await act(database, { name: 'bench', at: '2031-01-01T00:00:00Z' }, importBook, folder, stores);
console.log(Math.round(process.resourceUsage().maxRSS / 1024));
await database.close();
