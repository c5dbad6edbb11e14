import type { Logger } from 'pino';
import { requestLog } from './serving/requestLog';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { LedrinError } from '../core/errors/ledrinError';
import { peopleHandlers } from './people/handlers';
import { approvalHandlers } from './approvals/handlers';
import { auditHandlers } from './audit/handlers';
import { billingHandlers } from './billing/handlers';
import { chargingHandlers } from './daywork/handlers';
import { bookHandlers } from './book/handlers';
import { changeHandlers } from './changes/handlers';
import { companyHandlers } from './company/handlers';
import { correctionHandlers } from './corrections/handlers';
import { costHandlers } from './costs/handlers';
import { daySheetHandlers } from './daySheets/handlers';
import { estimateHandlers } from './estimates/handlers';
import { jsonBody, OPEN_BODY } from './http/body';
import type { Setting } from './http/context';
import { refuseOtherSites } from './serving/door';
import { packedPages } from './serving/packedPages';
import { answerErrors } from './http/reply';
import { serve } from './serving/serve';
import { instalmentHandlers } from './instalments/handlers';
import { jobFileHandlers } from './jobFile/handlers';
import { jobHandlers } from './jobs/handlers';
import { masterHandlers } from './masters/handlers';
import { labourHandlers, labourListHandlers } from './labour/handlers';
import { ledgerHandlers } from './ledger/handlers';
import { answerHandlers } from './offers/handlers';
import { forecastHandlers } from './forecasts/handlers';
import { payrollHandlers } from './payroll/handlers';
import { planHandlers } from './plan/handlers';
import { priceHandlers } from './prices/handlers';
import { quotationHandlers } from './quotations/handlers';
import { reportHandlers } from './reports/handlers';
import { siteHandlers } from './site/handlers';
import { tenderHandlers } from './tenders/handlers';
import { userHandlers } from './users/handlers';
import { slowedSignIn } from './users/slowedSignIn';
import { waitingHandlers } from './waiting/handlers';
import { weekSheetHandlers } from './weekSheets/handlers';

/** What carries out the calls, one line a noun. */
const NOUNS = [
  companyHandlers,
  userHandlers,
  siteHandlers,
  waitingHandlers,
  approvalHandlers,
  peopleHandlers,
  bookHandlers,
  priceHandlers,
  jobHandlers,
  jobFileHandlers,
  tenderHandlers,
  forecastHandlers,
  labourHandlers,
  labourListHandlers,
  weekSheetHandlers,
  daySheetHandlers,
  payrollHandlers,
  planHandlers,
  instalmentHandlers,
  estimateHandlers,
  quotationHandlers,
  answerHandlers,
  changeHandlers,
  masterHandlers,
  auditHandlers,
  costHandlers,
  correctionHandlers,
  billingHandlers,
  chargingHandlers,
  ledgerHandlers,
  reportHandlers,
];

export interface AppSetting extends Setting {
  /** Folder of the built pages; null for none. */
  pages: string | null;
  log: (error: unknown) => void;
  /** Where each request leaves a line; null for none. */
  requests: Logger | null;
  /** Which proxies before it are believed when they say who asks, as Express takes it; false for none. */
  trustProxy: boolean | number | string;
}

/** The whole web application: the API under /api, and the built pages for everything else. */
export function createApp(setting: AppSetting): Express {
  const app = express();
  app.set('query parser', 'simple');
  app.set('trust proxy', setting.trustProxy);
  const secure = setting.address.startsWith('https:');
  if (setting.requests) app.use(requestLog(setting.requests));
  app.use(
    helmet({
      contentSecurityPolicy: {
        // All of a page comes from where the page does; on the server's own machine that is plain http, behind TLS too.
        directives: { 'upgrade-insecure-requests': null, 'style-src': ["'self'", "'unsafe-inline'"] },
      },
      strictTransportSecurity: secure ? { maxAge: 31_536_000 } : false,
    }),
  );
  app.use(['/answer', '/api'], (_request, response, next) => {
    response.setHeader('X-Robots-Tag', 'noindex, nofollow');
    next();
  });
  app.use('/api', (_request, response, next) => {
    // After sign-out, the browser has nothing to show again.
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', refuseOtherSites(setting.address), compression());
  app.use(
    ['/api/sign-in', '/api/first-owner', '/api/account/password', '/api/account/second-factor'],
    jsonBody(OPEN_BODY),
    ...slowedSignIn(setting),
  );
  app.use('/api', serve(setting, NOUNS));
  app.use('/api', (request) => {
    const [path = ''] = request.originalUrl.split('?');
    throw new LedrinError('not-found', `There is nothing at ${request.method} ${path.slice(0, 120)}`);
  });
  if (setting.pages && existsSync(setting.pages)) servePages(app, setting.pages);
  app.use(answerErrors(setting.log));
  return app;
}

function servePages(app: Express, pages: string): void {
  app.use(
    packedPages(pages),
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
