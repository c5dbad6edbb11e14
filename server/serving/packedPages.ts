import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { NextFunction, Request, Response } from 'express';

/** The ways files were packed when the pages were built, best first. */
const PACKINGS = [
  { ending: '.br', encoding: 'br' },
  { ending: '.gz', encoding: 'gzip' },
] as const;
const TYPES: Readonly<Record<string, string>> = { js: 'text/javascript', css: 'text/css', svg: 'image/svg+xml' };

/** Sends the packed form of a built file to a browser that takes it; anything else goes on. */
export function packedPages(pages: string) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const [, file, ending] = /^\/(assets\/[\w.-]+\.(js|css|svg))$/.exec(request.path) ?? [];
    if (file === undefined || ending === undefined) return next();
    response.vary('Accept-Encoding');
    const packing = PACKINGS.find((it) => request.acceptsEncodings(it.encoding) && existsSync(join(pages, file + it.ending)));
    if (!packing) return next();
    response.setHeader('Content-Encoding', packing.encoding);
    response.setHeader('Content-Type', `${TYPES[ending]}; charset=utf-8`);
    response.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
    response.sendFile(join(pages, file + packing.ending), { headers: { 'Content-Type': `${TYPES[ending]}; charset=utf-8` } });
  };
}
