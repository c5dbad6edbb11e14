import { Router } from 'express';
import { acceptInput, askInput, declineInput } from '../../wire/quotations';
import { acceptOffer, askAboutOffer, declineOffer } from './offers';
import { clientDocumentPdf } from './clientDocumentPdf';
import { answerView } from './offerViews';
import { textParam, type Context } from '../http/context';
import { read } from '../http/reply';

/** What a client reaches without signing in, by the link alone: one document, and the answers to it. */
export function answerRoutes({ database, now }: Context): Router {
  const router = Router();
  const at = () => now().toISOString();
  router.get('/answer/:token', async (request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.json(await database.consistent((sql) => answerView(sql, textParam(request, 'token'), at().slice(0, 10))));
  });
  router.get('/answer/:token/document.pdf', async (request, response) => {
    const { document } = await database.consistent((sql) => answerView(sql, textParam(request, 'token'), at().slice(0, 10)));
    response.type('application/pdf').send(await clientDocumentPdf(document));
  });
  router.post('/answer/:token/ask', async (request, response) => {
    const { name, question } = read(askInput, request.body);
    await askAboutOffer(database, at(), textParam(request, 'token'), name, question);
    response.status(201).json({});
  });
  router.post('/answer/:token/accept', async (request, response) => {
    const { name, signature } = read(acceptInput, request.body);
    await acceptOffer(database, at(), textParam(request, 'token'), name, signature);
    response.json({});
  });
  router.post('/answer/:token/decline', async (request, response) => {
    const { name, reason } = read(declineInput, request.body);
    await declineOffer(database, at(), textParam(request, 'token'), name, reason);
    response.json({});
  });
  return router;
}
