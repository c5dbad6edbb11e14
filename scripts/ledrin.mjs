// Runs the command line: the bundled one where it is built and no older than the sources, else through tsx.
import { spawnSync } from 'node:child_process';
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

if (!existsSync(join(root, 'node_modules/sequelize'))) {
  // What installing says goes to standard error: standard output is the report's.
  const { status } = spawnSync('bash', [join(root, 'scripts/install.sh')], { stdio: ['ignore', 2, 2] });
  if (status !== 0) process.exit(1);
}

const current =
  existsSync(bundle) &&
  statSync(bundle).mtimeMs >= Math.max(...['server', 'core', 'wire'].map((folder) => newest(join(root, folder))));
if (current) {
  await import(pathToFileURL(bundle).href);
} else {
  const { register } = await import('tsx/esm/api');
  register();
  await import(pathToFileURL(join(root, 'server/cli.ts')).href);
}
