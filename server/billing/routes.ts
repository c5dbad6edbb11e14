import { Router } from 'express';
import { applicationLinesInput, certifyInput, newApplicationInput, receiptInput, releaseInput } from '../../wire/billing';
import { certifyApplication, discardApplication, saveApplication, setSubmitted, startApplication } from './applications';
import { receive, releaseRetention } from './receipts';
import { applicationPdf } from './applicationPdf';
import { applicationView } from './applicationView';
import { billingRegister } from './billingRegister';
import { actorOf, asOfOf, numberParam, textParam, type Context } from '../http/context';
import { read } from '../http/reply';

export function billingRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  const one = '/jobs/:number/applications/:application';
  router.get(
    '/billing',
    async (request, response) =>
      void response.json(await database.consistent((sql) => billingRegister(sql, asOfOf(request.query.asOf)))),
  );
  router.post('/jobs/:number/applications', async (request, response) => {
    const input = read(newApplicationInput, request.body);
    response
      .status(201)
      .json({ number: await startApplication(database, actorOf(context), textParam(request, 'number'), input) });
  });
  router.get(
    one,
    async (request, response) =>
      void response.json(
        await database.consistent((sql) =>
          applicationView(sql, textParam(request, 'number'), numberParam(request, 'application'), asOfOf(request.query.asOf)),
        ),
      ),
  );
  router.get(`${one}/print`, async (request, response) => {
    const [job, number] = [textParam(request, 'number'), numberParam(request, 'application')];
    const pdf = await database.consistent((sql) => applicationPdf(sql, job, number));
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="application-${encodeURIComponent(job)}-${number}.pdf"`);
    response.send(pdf);
  });
  router.put(one, async (request, response) => {
    await saveApplication(
      database,
      actorOf(context),
      textParam(request, 'number'),
      numberParam(request, 'application'),
      read(applicationLinesInput, request.body),
    );
    response.json({});
  });
  router.delete(one, async (request, response) => {
    await discardApplication(database, actorOf(context), textParam(request, 'number'), numberParam(request, 'application'));
    response.json({});
  });
  for (const [path, submitted] of [
    ['submit', true],
    ['take-back', false],
  ] as const) {
    router.post(`${one}/${path}`, async (request, response) => {
      await setSubmitted(
        database,
        actorOf(context),
        textParam(request, 'number'),
        numberParam(request, 'application'),
        submitted,
      );
      response.json({});
    });
  }
  router.post(
    `${one}/certify`,
    async (request, response) =>
      void response.status(201).json({
        postingId: await certifyApplication(
          database,
          actorOf(context),
          textParam(request, 'number'),
          numberParam(request, 'application'),
          read(certifyInput, request.body),
        ),
      }),
  );
  router.post(
    '/jobs/:number/invoices/:posting/receipts',
    async (request, response) =>
      void response.status(201).json({
        postingId: await receive(
          database,
          actorOf(context),
          textParam(request, 'number'),
          textParam(request, 'posting'),
          read(receiptInput, request.body),
        ),
      }),
  );
  router.post(
    '/jobs/:number/releases',
    async (request, response) =>
      void response.status(201).json({
        postingId: await releaseRetention(
          database,
          actorOf(context),
          textParam(request, 'number'),
          read(releaseInput, request.body),
        ),
      }),
  );
  return router;
}
