// Packs the built pages once, as small as it goes, so that the server need not do it for every request.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const folder = 'dist/web/assets';
for (const file of readdirSync(folder).filter((it) => /\.(js|css|svg)$/.test(it))) {
  const path = join(folder, file);
  const content = readFileSync(path);
  writeFileSync(`${path}.br`, brotliCompressSync(content, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }));
  writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
}
