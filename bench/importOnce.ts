// Imports one book in a process of its own, so that its memory can be read.
import { importBook } from '../server/book/importBook';
import { openDatabase } from '../server/db/database';
import { act } from '../server/test/act';

const [folder, file] = process.argv.slice(2) as [string, string];
const database = await openDatabase(file);
const stores = { files: `${file}-files`, outbox: `${file}-outbox` };
const counts = await act(database, { name: 'bench', at: '2031-01-01T00:00:00Z' }, importBook, folder, stores);
console.log(JSON.stringify({ counts, rss: process.resourceUsage().maxRSS }));
await database.close();
