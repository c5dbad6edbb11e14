import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { LedrinError } from '../core/errors/ledrinError';
import { answerRoutes } from './offers/routes';
import { billingRoutes } from './billing/routes';
import { changeRoutes } from './changes/routes';
import type { Context } from './http/context';
import { costRoutes } from './costs/routes';
import { estimateRoutes } from './estimates/routes';
import { jobFileRoutes } from './jobFile/routes';
import { planRoutes } from './plan/routes';
import { jobRoutes } from './jobs/routes';
import { priceRoutes } from './prices/routes';
import { quotationRoutes } from './quotations/routes';
import { answerErrors } from './http/reply';
import { reportRoutes } from './reports/routes';
import { setupRoutes } from './company/routes';

/** A body larger than this is refused before it is read; a batch of 5,000 costs fits. */
const LARGEST_BODY = '4mb';

const ALL_ROUTES = [
  setupRoutes,
  priceRoutes,
  jobRoutes,
  planRoutes,
  jobFileRoutes,
  estimateRoutes,
  quotationRoutes,
  changeRoutes,
  answerRoutes,
  costRoutes,
  billingRoutes,
  reportRoutes,
];

/** The whole web application: the API under /api, and the built pages for everything else. */
export function createApp(context: Context & { pages: string | null; log: (error: unknown) => void }): Express {
  const app = express();
  app.set('query parser', 'simple');
  app.use(
    helmet({
      contentSecurityPolicy: { directives: { 'upgrade-insecure-requests': null, 'style-src': ["'self'", "'unsafe-inline'"] } },
      strictTransportSecurity: false,
    }),
  );
  app.use('/api', refuseForeignPages, express.json({ limit: LARGEST_BODY }));
  for (const routes of ALL_ROUTES) app.use('/api', routes(context));
  app.use('/api', (request) => {
    throw new LedrinError(
      'not-found',
      `There is nothing at ${request.method} ${request.originalUrl.split('?')[0]!.slice(0, 120)}`,
    );
  });
  if (context.pages && existsSync(context.pages)) servePages(app, context.pages);
  app.use(answerErrors(context.log));
  return app;
}

/** Another site's page must not post into these books from the accountant's browser. */
function refuseForeignPages(request: express.Request, _response: express.Response, next: express.NextFunction): void {
  const origin = request.get('origin');
  if (request.method !== 'GET' && origin && new URL(origin).host !== request.get('host'))
    throw new LedrinError('refused', `A page of ${origin} may not change these books`);
  next();
}

function servePages(app: Express, pages: string): void {
  app.use(
    express.static(pages, {
      index: false,
      maxAge: '1h',
      setHeaders: (response, path) =>
        void (path.includes('/assets/') && response.setHeader('Cache-Control', 'public, max-age=31536000, immutable')),
    }),
  );
  app.get(
    '/{*splat}',
    (_request, response) => void response.setHeader('Cache-Control', 'no-cache').sendFile(join(pages, 'index.html')),
  );
}
