// Bundles the worker that opens day sheets without a connection, with the list of files those pages are made of.
import { createHash } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { build } from 'esbuild';

const pages = 'dist/web';
const manifest = JSON.parse(readFileSync(`${pages}/.vite/manifest.json`, 'utf8'));
/** The entry, and what the routes of day sheets load when somebody goes there. */
const ROOTS = [
  'index.html',
  'shell/PhoneFrame.tsx',
  ...['DaysPage', 'NewDayPage', 'DayPage'].map((it) => `features/daySheets/phone/${it}.tsx`),
];

/** A page that others import from stands in the manifest by its own name. */
const shared = (name) => Object.values(manifest).find((it) => it.file.endsWith('.js') && name.endsWith(`/${it.name}.tsx`));

const files = new Set();
const seen = new Set();
function add(name) {
  if (seen.has(name)) return;
  seen.add(name);
  const chunk = manifest[name] ?? shared(name);
  if (!chunk) throw new Error(`the build has no ${name}: day sheets would not open without a connection`);
  for (const file of [chunk.file, ...(chunk.css ?? []), ...(chunk.assets ?? [])]) files.add(file);
  for (const other of chunk.imports ?? []) add(other);
}
ROOTS.forEach(add);

// Files under /assets bear a digest in their names; the others change under theirs.
const revision = (file) =>
  createHash('sha256')
    .update(readFileSync(`${pages}/${file}`))
    .digest('hex')
    .slice(0, 16);
const list = [...files].sort().map((file) => ({ url: `/${file}`, revision: null }));
for (const file of ['index.html', 'day-sheets.webmanifest', 'mark.svg']) list.push({ url: `/${file}`, revision: revision(file) });

await build({
  entryPoints: ['web/workers/daySheetWorker.ts'],
  outfile: `${pages}/day-sheets-worker.js`,
  bundle: true,
  minify: true,
  target: 'es2022',
  define: { DAY_SHEET_FILES: JSON.stringify(list), 'process.env.NODE_ENV': '"production"' },
});
rmSync(`${pages}/.vite`, { recursive: true });
