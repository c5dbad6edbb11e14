// Bundles the server and the command line; packages stay outside, so that native ones load as installed.
import { build } from 'esbuild';

await build({
  entryPoints: { main: 'server/main.ts', cli: 'server/cli.ts', worker: 'server/workers/worker.ts' },
  outdir: 'dist/server',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  sourcemap: true,
});
