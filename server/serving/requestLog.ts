import type { RequestHandler } from 'express';
import type { IncomingMessage } from 'node:http';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';

/**
 * One line a request: what was asked for and what came of it. The way in is named, not the address: that may hold a token or a
 * person's name. Nobody's name, address or contents are in it; who changed what stands in the audit trail.
 */
export function requestLog(logger: Logger): RequestHandler {
  const seen = (request: IncomingMessage, status: number, milliseconds: number) => ({
    method: request.method,
    way: wayOf(request),
    status,
    milliseconds: Math.round(milliseconds),
  });
  return pinoHttp({
    logger,
    quietReqLogger: true,
    // By itself it would write addresses, headers and cookies.
    wrapSerializers: false,
    serializers: { req: () => undefined, res: () => undefined },
    autoLogging: { ignore: ({ url = '' }) => !url.startsWith('/api/') || url.startsWith('/api/health') },
    customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'error' : 'info'),
    customSuccessObject: (request, response, value: { responseTime: number }) =>
      seen(request, response.statusCode, value.responseTime),
    customErrorObject: (request, response, _error, value: { responseTime: number }) =>
      seen(request, response.statusCode, value.responseTime),
    customSuccessMessage: () => 'request',
    customErrorMessage: () => 'request',
  });
}

/** The pattern a request matched, such as `/jobs/:job/plan`; for one that matched none, nothing of what it said. */
function wayOf(request: IncomingMessage): string {
  return (request as { route?: { path?: string } }).route?.path ?? 'none';
}
