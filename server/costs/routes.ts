import { Router } from 'express';
import * as v from 'valibot';
import { COST_TYPES } from '../../core/costs/costType';
import { plainDate } from '../../wire/fields';
import { costBatchInput, reversalInput } from '../../wire/costs';
import { postCosts } from './postCosts';
import { previewCosts } from './previewCosts';
import { reversePosting } from '../ledger/reverse';
import { costLedgerCsv } from './costLedgerCsv';
import { COST_SORTS, costLedgerPage } from './costLedger';
import { costSubtotals, SUBTOTALS } from './costSubtotals';
import { postingList, postingView } from '../ledger/postingViews';
import { actorOf, asOfOf, numberParam, type Context } from '../http/context';
import { read } from '../http/reply';

const whole = (largest: number) =>
  v.pipe(
    v.string(),
    v.regex(/^\d{1,15}$/, 'expected a whole number'),
    v.transform(Number),
    v.maxValue(largest, `expected at most ${largest}`),
  );
const flag = v.pipe(
  v.picklist(['yes', 'no'], 'expected yes or no'),
  v.transform((it) => it === 'yes'),
);

const ledgerQuery = v.strictObject({
  asOf: v.string(),
  job: v.optional(v.string()),
  section: v.optional(v.string()),
  costCode: v.optional(v.string()),
  costType: v.optional(v.picklist(COST_TYPES, `expected one of ${COST_TYPES.join(', ')}`)),
  party: v.optional(v.string()),
  from: v.optional(plainDate),
  to: v.optional(plainDate),
  search: v.optional(v.pipe(v.string(), v.maxLength(100, 'expected at most 100 characters'))),
  posting: v.optional(whole(Number.MAX_SAFE_INTEGER)),
  commitment: v.optional(v.string()),
  uninstalled: v.optional(flag),
  sort: v.optional(v.picklist(COST_SORTS, `expected one of ${COST_SORTS.join(', ')}`)),
  descending: v.optional(flag),
  offset: v.optional(whole(100_000_000)),
  limit: v.optional(whole(1000)),
});

const subtotalQuery = v.strictObject({
  ...ledgerQuery.entries,
  by: v.picklist(SUBTOTALS, `expected one of ${SUBTOTALS.join(', ')}`),
});

export function costRoutes(context: Context): Router {
  const { database } = context;
  const router = Router();
  router.get('/costs', async (request, response) => {
    const filter = read(ledgerQuery, request.query);
    response.json(await database.consistent((sql) => costLedgerPage(sql, { ...filter, asOf: asOfOf(filter.asOf) })));
  });
  router.get('/costs/subtotals', async (request, response) => {
    const { by, ...filter } = read(subtotalQuery, request.query);
    response.json(await database.consistent((sql) => costSubtotals(sql, { ...filter, asOf: asOfOf(filter.asOf) }, by)));
  });
  router.get('/costs.csv', async (request, response) => {
    const filter = read(ledgerQuery, request.query);
    response.attachment('cost-ledger.csv').type('text/csv');
    await costLedgerCsv(database.read(), { ...filter, asOf: asOfOf(filter.asOf) }, response);
  });
  router.post(
    '/costs',
    async (request, response) =>
      void response.status(201).json(await postCosts(database, actorOf(context), read(costBatchInput, request.body))),
  );
  router.post(
    '/costs/preview',
    async (request, response) =>
      void response.json(await previewCosts(database, actorOf(context), read(costBatchInput, request.body))),
  );
  router.get('/postings', async (request, response) => {
    const { asOf, job, offset } = read(
      v.strictObject({ asOf: v.string(), job: v.optional(v.string()), offset: v.optional(whole(100_000_000)) }),
      request.query,
    );
    response.json(await database.consistent((sql) => postingList(sql, asOfOf(asOf), job, offset ?? 0)));
  });
  router.get(
    '/postings/:id',
    async (request, response) =>
      void response.json(await database.consistent((sql) => postingView(sql, numberParam(request, 'id')))),
  );
  router.post(
    '/postings/:id/reverse',
    async (request, response) =>
      void response
        .status(201)
        .json(await reversePosting(database, actorOf(context), numberParam(request, 'id'), read(reversalInput, request.body))),
  );
  return router;
}
