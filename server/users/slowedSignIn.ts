import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Setting } from '../http/context';
import { KnownDeviceTable, SignInFailureTable } from './models';
import { FORGET_FAILURES } from './queries';
import { deviceOf, savedToken, sessionOf } from './sessions';
import { userCalled } from './signIn';

/** Within these minutes so many tries may fail. */
const MINUTES = 15;
/** For one person, by name or address, from one place or one browser that is known. */
const FOR_A_PERSON = 8;
/** For one person from wherever: browsers somebody signed in from before do not count, and are not shut out. */
const FOR_A_PERSON_ANYWHERE = 60;
/** From one address, which may be that of a whole office. */
const FROM_AN_ADDRESS = 200;
/** How long failures are kept. */
const KEPT_DAYS = 90;

const NOT_ALLOWED = 403;

/** Who is tried, however the name was typed, and whether the browser is one that person signed in from before. */
interface Tried {
  userId: number | null;
  /** Null where nobody is named and nobody is signed in: then only the address counts. */
  key: string | null;
  known: boolean;
}

/** Whoever guesses passwords is made to wait, and leaves a trace that the owner sees. */
export function slowedSignIn({ database, now }: Pick<Setting, 'database' | 'now'>): RequestHandler[] {
  const tried = new WeakMap<Request, Promise<Tried>>();
  const triedOf = (request: Request): Promise<Tried> => {
    const there = tried.get(request) ?? findTried(database, request);
    tried.set(request, there);
    return there;
  };
  const slowed = (
    limit: number,
    keyGenerator: (request: Request) => Promise<string>,
    skip: (request: Request) => Promise<boolean> = () => Promise.resolve(false),
  ) =>
    rateLimit({
      windowMs: MINUTES * 60_000,
      limit,
      keyGenerator,
      skip,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      validate: false,
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
  const noted: RequestHandler = (request, response, next) => {
    response.on('finish', () => {
      if (response.statusCode === NOT_ALLOWED)
        void noteFailure(database, request, triedOf(request), now()).catch(() => undefined);
    });
    next();
  };
  const isKnown = async (request: Request) => (await triedOf(request)).known;
  const isNobody = async (request: Request) => (await triedOf(request)).key === null;
  return [
    noted,
    slowed(
      FOR_A_PERSON,
      async (request) => {
        const { key, known } = await triedOf(request);
        return `${key} ${known ? deviceOf(request) : (request.ip ?? '')}`;
      },
      isNobody,
    ),
    slowed(
      FOR_A_PERSON_ANYWHERE,
      async (request) => (await triedOf(request)).key ?? '',
      async (request) => (await isKnown(request)) || (await isNobody(request)),
    ),
    slowed(FROM_AN_ADDRESS, (request) => Promise.resolve(request.ip ?? ''), isKnown),
  ];
}

function whoOf(request: Request): string | null {
  const { who } = (request.body ?? {}) as { who?: unknown };
  return typeof who === 'string' ? who.trim().toLowerCase().slice(0, 200) : null;
}

async function findTried(database: Setting['database'], request: Request): Promise<Tried> {
  const who = whoOf(request);
  const device = deviceOf(request);
  const session = sessionOf(request);
  // Whoever changes a password is signed in: then it is the session that guesses, whatever other cookies are sent with it.
  if (who === null) return { userId: null, key: session === null ? null : `session ${savedToken(session)}`, known: false };
  return database.read(async (sql) => {
    const user = await userCalled(sql, who);
    if (!user) return { userId: null, key: `name ${who}`, known: false };
    const known =
      device !== null && (await sql.findOne(KnownDeviceTable, { token: savedToken(device), user_id: user.id })) !== undefined;
    return { userId: user.id, key: `user ${user.id}`, known };
  });
}

async function noteFailure(database: Setting['database'], request: Request, tried: Promise<Tried>, now: Date): Promise<void> {
  const { userId } = await tried;
  const oldest = new Date(now.getTime() - KEPT_DAYS * 86_400_000).toISOString();
  await database.write(async (sql) => {
    await sql.run(FORGET_FAILURES, [oldest]);
    await sql.insert(SignInFailureTable, {
      at: now.toISOString(),
      who: whoOf(request) ?? 'somebody signed in',
      user_id: userId,
      from_where: `${(request.get('user-agent') ?? 'unknown program').slice(0, 200)}, ${request.ip ?? 'unknown address'}`,
    });
  });
}
