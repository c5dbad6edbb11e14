// Runs the command line: the bundled one where it is built and no older than the sources, else through tsx.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const bundle = join(root, 'dist/server/cli.mjs');

function newest(folder) {
  return Math.max(
    ...readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((it) => it.isFile())
      .map((it) => statSync(join(it.parentPath, it.name)).mtimeMs),
  );
}

const current =
  existsSync(bundle) && statSync(bundle).mtimeMs >= Math.max(newest(join(root, 'server')), newest(join(root, 'core')));
if (current) {
  await import(pathToFileURL(bundle).href);
} else {
  const { register } = await import('tsx/esm/api');
  register();
  await import(pathToFileURL(join(root, 'server/cli.ts')).href);
}
