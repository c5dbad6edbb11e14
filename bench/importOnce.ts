// One import in a process of its own, so that its peak memory can be told. Prints it in MB.
import { importBook } from '../server/book/importBook';
import { storesOf } from '../server/config';
import { openDatabase } from '../server/db/database';

const [folder, file] = process.argv.slice(2) as [string, string];
const database = await openDatabase(file);
await importBook(database, folder, { name: 'bench', at: new Date().toISOString() }, storesOf(file, {}));
await database.close();
console.log(Math.round(process.resourceUsage().maxRSS / 1024));
