import type { NextFunction, Request, Response } from 'express';
import * as v from 'valibot';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';

/** Reads a request's body or query by its schema; what does not fit is listed field by field. */
export function read<Schema extends v.GenericSchema>(schema: Schema, input: unknown): v.InferOutput<Schema> {
  const result = v.safeParse(schema, input);
  if (result.success) return result.output;
  const faults = result.issues.map((issue) => ({ field: v.getDotPath(issue) ?? 'body', message: issueText(issue) }));
  const first: Fault = faults[0] ?? { field: 'body', message: 'cannot be read' };
  throw new LedrinError('bad-input', `${first.field}: ${first.message}`, faults);
}

function issueText(issue: v.BaseIssue<unknown>): string {
  if (issue.type === 'strict_object' && issue.expected === 'never') return 'is not known here; leave it out';
  if ((issue.type === 'strict_object' || issue.type === 'variant') && issue.received === 'undefined') return 'is missing';
  return issue.message.startsWith('Invalid') ? `expected ${issue.expected}, found ${issue.received}` : issue.message;
}

/** Names this machine is reached by without any setting. */
const THIS_MACHINE = ['localhost', '127.0.0.1', '[::1]'];

/**
 * Refuses what does not come from a page of ours: a Host that is none of this server's (a page elsewhere may point a name of
 * its own here), an Origin that is not, and requests a browser says come from another site, but for a link somebody follows.
 */
export function refuseOtherSites(address: string) {
  const names = new Set([...THIS_MACHINE, hostName(address)]);
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.get('host') ?? '';
    // As it was sent: other ways of writing an address, such as one whole number, are none of this server's names.
    const sent = host.toLowerCase().replace(/:\d+$/, '');
    if (!names.has(sent))
      throw new LedrinError(
        'refused',
        `This server does not answer as ${host.slice(0, 80)}. Open it at ${address}, or set LEDRIN_ADDRESS`,
      );
    const origin = request.get('origin');
    if (request.method !== 'GET' && origin !== undefined && !isOurs(origin, [address, `${request.protocol}://${host}`]))
      throw new LedrinError('refused', `A page of ${origin.slice(0, 80)} may not change these books`);
    if (request.get('sec-fetch-site') === 'cross-site' && request.get('sec-fetch-mode') !== 'navigate')
      throw new LedrinError('refused', 'A page of another site may not read or change these books');
    next();
  };
}

function hostName(address: string): string {
  return URL.canParse(address) ? new URL(address).hostname : '';
}

/** Of the same host and the same scheme as an address of ours: what came over plain http is not a page of ours behind TLS. */
function isOurs(origin: string, addresses: readonly string[]): boolean {
  const originOf = (address: string) => (URL.canParse(address) ? new URL(address).origin : null);
  return addresses.some((it) => originOf(it) !== null && originOf(it) === originOf(origin));
}
