import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { LedrinError } from '../../core/errors/ledrinError';

/** Within these minutes so many tries that fail, for one name and from one address. */
const MINUTES = 15;
const FOR_A_NAME = 8;
const FROM_AN_ADDRESS = 40;

/** Whoever guesses passwords is made to wait, by the name that is tried and by where it comes from. */
export function slowedSignIn(now: () => Date): RequestHandler[] {
  const slowed = (limit: number, keyGenerator: (request: Request) => string, skip: (request: Request) => boolean) =>
    rateLimit({
      ...{
        windowMs: MINUTES * 60_000,
        limit,
        keyGenerator,
        skip,
        standardHeaders: 'draft-8',
        legacyHeaders: false,
        validate: false,
      },
      // A slip in the form is no guess; what goes together is forgotten.
      skipSuccessfulRequests: true,
      requestWasSuccessful: (_request, response) => response.statusCode !== NOT_ALLOWED,
      handler: (request, _response, next) => {
        const { resetTime } = (request as Request & { rateLimit: { resetTime?: Date } }).rateLimit;
        const minutes = Math.max(1, Math.ceil(((resetTime?.getTime() ?? now().getTime()) - Date.now()) / 60_000));
        next(
          new LedrinError(
            'too-often',
            `That was tried too often. Wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}, then try again`,
          ),
        );
      },
    });
  return [
    slowed(
      FOR_A_NAME,
      (request) => whoOf(request) ?? '',
      (request) => whoOf(request) === null,
    ),
    slowed(
      FROM_AN_ADDRESS,
      (request) => request.ip ?? '',
      () => false,
    ),
  ];
}

const NOT_ALLOWED = 403;

function whoOf(request: Request): string | null {
  const { who } = (request.body ?? {}) as { who?: unknown };
  return typeof who === 'string' ? who.trim().toLowerCase().slice(0, 200) : null;
}
