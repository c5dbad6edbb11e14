import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Router } from 'express';
import multer from 'multer';
import { LedrinError } from '../../core/errors/ledrinError';
import { buildUpInput, priceItemsInput, priceMoveInput, priceMoveSeen } from '../../wire/prices';
import { importPrices } from './importPrices';
import { movePrices, previewPriceMove, removeBuildUp, removePriceItem, saveBuildUp, savePriceItems } from './prices';
import { fileText } from '../book/writeBook';
import { achieved, priceBookView, priceHistory } from './priceBook';
import { actorOf, textParam, type Context } from '../http/context';
import { read } from '../http/reply';
import { receive } from '../http/upload';

export function priceRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  router.get('/prices', async (_request, response) => void response.json(await database.consistent(priceBookView)));
  router.get('/prices/achieved', async (_request, response) => void response.json(await database.consistent(achieved)));
  router.get('/prices.csv', async (_request, response) => {
    const text = await database.consistent((sql) => fileText(sql, 'price_items'));
    response.attachment('price_items.csv').type('text/csv').send(text);
  });
  router.get(
    '/prices/items/:code/history',
    async (request, response) =>
      void response.json(await database.consistent((sql) => priceHistory(sql, textParam(request, 'code')))),
  );
  router.put('/prices/items', async (request, response) => {
    await savePriceItems(database, actorOf(context), read(priceItemsInput, request.body));
    response.json({});
  });
  router.post('/prices/import', async (request, response) => {
    const folder = mkdtempSync(join(tmpdir(), 'ledrin-prices-'));
    try {
      const upload = multer({
        storage: multer.diskStorage({ destination: folder, filename: (_r, _f, done) => done(null, 'price_items.csv') }),
        limits: { fileSize: 20e6, files: 1 },
      });
      await receive(upload.single('file'), request, response);
      if (!request.file) throw new LedrinError('bad-input', 'file: expected a CSV file with the columns of price_items.csv');
      response.status(201).json({ count: await importPrices(database, actorOf(context), join(folder, 'price_items.csv')) });
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
  router.delete('/prices/items/:code', async (request, response) => {
    await removePriceItem(database, actorOf(context), textParam(request, 'code'));
    response.json({});
  });
  router.post(
    '/prices/move/preview',
    async (request, response) => void response.json(await previewPriceMove(database, read(priceMoveInput, request.body))),
  );
  router.post(
    '/prices/move',
    async (request, response) =>
      void response.status(201).json({ count: await movePrices(database, actorOf(context), read(priceMoveSeen, request.body)) }),
  );
  router.put('/build-ups', async (request, response) => {
    await saveBuildUp(database, actorOf(context), read(buildUpInput, request.body));
    response.json({});
  });
  router.delete('/build-ups/:code', async (request, response) => {
    await removeBuildUp(database, actorOf(context), textParam(request, 'code'));
    response.json({});
  });
  return router;
}
