import { Router, type Request, type Response } from 'express';
import { quotationInput, replyInput, sendInput, termsInput } from '../../wire/quotations';
import { replyToQuestion, sendChange } from '../offers/offers';
import { discardQuotation, removeTerms, saveQuotation, saveTerms, sendQuotation } from './quotations';
import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import { clientDocumentDocx } from '../offers/clientDocumentDocx';
import { clientDocumentPdf } from '../offers/clientDocumentPdf';
import { changeDocument } from '../offers/clientDocuments';
import { messageFile, messages, offersOf } from '../offers/offerViews';
import { quotationList, termsLibrary } from './quotationList';
import { quotationView } from './quotationView';
import { actorOf, numberParam, originOf, textParam, type Context } from '../http/context';
import { read } from '../http/reply';

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

export function quotationRoutes(context: Context): Router {
  const { database, outbox } = context;
  const router = Router();
  const all = '/jobs/:number/quotations';
  const one = `${all}/:quotation`;
  const change = '/jobs/:number/changes/:change';
  const named = (request: Request) => [textParam(request, 'number'), numberParam(request, 'quotation')] as const;
  const changed = (request: Request) => [textParam(request, 'number'), textParam(request, 'change')] as const;
  const today = () => context.now().toISOString().slice(0, 10);
  const sending = (request: Request) => ({ outbox, origin: originOf(request) });

  router.get(
    all,
    async (request, response) =>
      void response.json(await database.consistent((sql) => quotationList(sql, textParam(request, 'number')))),
  );
  router.post(all, async (request, response) => {
    const saved = await saveQuotation(
      database,
      actorOf(context),
      textParam(request, 'number'),
      null,
      read(quotationInput, request.body),
    );
    response.status(201).json(saved);
  });
  router.get(
    one,
    async (request, response) =>
      void response.json(await database.consistent((sql) => quotationView(sql, ...named(request), today()))),
  );
  router.put(one, async (request, response) => {
    const [job, number] = named(request);
    response.json(await saveQuotation(database, actorOf(context), job, number, read(quotationInput, request.body)));
  });
  router.delete(one, async (request, response) => {
    await discardQuotation(database, actorOf(context), ...named(request));
    response.json({});
  });
  router.post(`${one}/send`, async (request, response) => {
    await sendQuotation(database, sending(request), actorOf(context), ...named(request), read(sendInput, request.body));
    response.status(201).json({});
  });
  router.get(`${one}/document.:format`, async (request, response) => {
    const { document } = await database.consistent((sql) => quotationView(sql, ...named(request), today()));
    await sendDocument(response, document, textParam(request, 'format'));
  });
  router.get(`${change}/offers`, async (request, response) => {
    const [job, number] = changed(request);
    response.json(await database.consistent((sql) => offersOf(sql, job, 'change', number, today())));
  });
  router.post(`${change}/send`, async (request, response) => {
    await sendChange(database, sending(request), actorOf(context), ...changed(request), read(sendInput, request.body));
    response.status(201).json({});
  });
  router.get(`${change}/document.:format`, async (request, response) => {
    const document = await database.consistent((sql) => changeDocument(sql, ...changed(request)));
    await sendDocument(response, document, textParam(request, 'format'));
  });
  router.post('/questions/:id', async (request, response) => {
    await replyToQuestion(database, actorOf(context), numberParam(request, 'id'), read(replyInput, request.body).answer);
    response.json({});
  });
  router.get('/terms', async (_request, response) => void response.json(await termsLibrary(database.read())));
  router.put('/terms', async (request, response) => {
    await saveTerms(database, actorOf(context), read(termsInput, request.body));
    response.json({});
  });
  router.delete('/terms/:name', async (request, response) => {
    await removeTerms(database, actorOf(context), textParam(request, 'name'));
    response.json({});
  });
  router.get('/messages', async (_request, response) => void response.json(await messages(database.read())));
  router.get('/messages/:id/file', async (request, response) => {
    const eml = outbox.read(await messageFile(database.read(), numberParam(request, 'id')));
    if (!eml)
      throw new LedrinError(
        'not-found',
        'The file of this message is not in the outbox any more; what it said is kept in the list',
      );
    response.attachment('message.eml').type('message/rfc822').send(eml);
  });
  return router;
}

async function sendDocument(response: Response, document: ClientDocument, format: string): Promise<void> {
  if (format !== 'pdf' && format !== 'docx') throw new LedrinError('not-found', 'The document comes as pdf or docx');
  const name = `${document.title} ${document.job.number}`.replace(/[^\w -]/g, '_');
  response.setHeader('Content-Disposition', `${format === 'pdf' ? 'inline' : 'attachment'}; filename="${name}.${format}"`);
  response.type(format === 'pdf' ? 'application/pdf' : DOCX);
  response.send(format === 'pdf' ? await clientDocumentPdf(document) : await clientDocumentDocx(document));
}
