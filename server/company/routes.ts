import { createReadStream, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { Router, type RequestHandler } from 'express';
import multer from 'multer';
import { ZipFile } from 'yazl';
import { LedrinError } from '../../core/errors/ledrinError';
import { companyInput, costCodesInput, clientInput } from '../../wire/company';
import { writeBook } from '../book/writeBook';
import { importBook } from '../book/importBook';
import { addCostCodes, addClient, saveCompany } from './saveCompany';
import { loadLists, loadSession } from './session';
import { actorOf, asOfOf, storesOf, type Context } from '../http/context';
import { read } from '../http/reply';
import { receive } from '../http/upload';

export function setupRoutes(context: Context): Router {
  const { database, now } = context;
  const router = Router();
  router.get(
    '/session',
    async (_request, response) => void response.json(await loadSession(database.read(), now().toISOString().slice(0, 10))),
  );
  router.get(
    '/lists',
    async (request, response) => void response.json(await loadLists(database.read(), asOfOf(request.query.asOf))),
  );
  router.post('/company', async (request, response) => {
    await saveCompany(database, actorOf(context), read(companyInput, request.body));
    response.status(201).json({});
  });
  router.post('/clients', async (request, response) => {
    await addClient(database, actorOf(context), read(clientInput, request.body));
    response.status(201).json({});
  });
  router.post('/cost-codes', async (request, response) => {
    await addCostCodes(database, actorOf(context), read(costCodesInput, request.body));
    response.status(201).json({});
  });
  router.post(
    '/book/sample',
    async (_request, response) =>
      void response.status(201).json(await importBook(database, context.sampleBook, actorOf(context), storesOf(context))),
  );
  router.post('/book/import', async (request, response) => {
    const folder = mkdtempSync(join(tmpdir(), 'ledrin-book-'));
    try {
      await receive(filesInto(folder), request, response);
      if (readdirSync(folder).length === 0)
        throw new LedrinError('bad-input', 'files: expected the files of a book; none came', [
          { field: 'files', message: 'expected the files of a book' },
        ]);
      response.status(201).json(await importBook(database, folder, actorOf(context), storesOf(context)));
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
  router.get('/book/export', async (_request, response) => {
    const folder = mkdtempSync(join(tmpdir(), 'ledrin-book-'));
    await database.consistent((sql) => writeBook(sql, folder, storesOf(context)));
    const zip = new ZipFile();
    for (const file of readdirSync(folder)) zip.addReadStream(createReadStream(join(folder, file)), file);
    zip.end();
    response.attachment('book.zip').type('application/zip');
    zip.outputStream.pipe(response).on('close', () => rmSync(folder, { recursive: true, force: true }));
  });
  return router;
}

function isFileName(name: string): boolean {
  return name !== '' && !/^\.+$/.test(name) && !/\p{Cc}/u.test(name) && Buffer.byteLength(name) <= 200;
}

/** Takes the uploaded files of a book to disk as they come; it may be larger than memory. */
function filesInto(folder: string): RequestHandler {
  return multer({
    storage: multer.diskStorage({
      destination: folder,
      filename: (_request, file, done) => done(null, basename(file.originalname)),
    }),
    limits: { files: 20_000, fileSize: 2 ** 31 },
    // A name no disk takes is passed over, as any file is that is none of a book.
    fileFilter: (_request, file, done) => done(null, isFileName(basename(file.originalname))),
  }).array('files');
}
