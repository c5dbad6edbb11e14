import type { NextFunction, Request, Response } from 'express';
import { LedrinError, type ErrorCode, type Fault } from '../../core/errors/ledrinError';
import type { FaultReply } from '../../wire/fault';
import { troubleInWords } from '../db/inWords';
import { BookRefused, faultLine } from '../../core/errors/bookFaults';

/** The status of every code: one that is missing does not compile. */
const STATUS: Record<ErrorCode, number> = {
  'bad-input': 400,
  'signed-out': 401,
  'not-allowed': 403,
  'needs-approval': 409,
  'not-found': 404,
  conflict: 409,
  refused: 409,
  'too-large': 413,
  'too-often': 429,
  unavailable: 503,
};

/** The last handler: turns what was thrown into an answer that says what to do. Only our own faults are 500. */
export function answerErrors(log: (error: unknown) => void) {
  return (error: unknown, _request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) return next(error);
    const { status, reply } = answerTo(error);
    if (status === 500 || status === 503) log(error);
    response.status(status).json(reply);
  };
}

/** The faults a reply lists; the rest is counted. */
const MOST_FAULTS = 200;

function listed(faults: readonly Fault[], count = faults.length): Pick<FaultReply, 'faults' | 'more'> {
  return { faults: faults.slice(0, MOST_FAULTS), more: Math.max(0, count - MOST_FAULTS) };
}

function answerTo(error: unknown): { status: number; reply: FaultReply } {
  if (error instanceof LedrinError)
    return { status: STATUS[error.code], reply: { code: error.code, message: error.message, ...listed(error.faults) } };
  if (error instanceof BookRefused) {
    return {
      status: 400,
      reply: {
        code: 'bad-input',
        message: error.message,
        ...listed(
          error.faults
            .slice(0, MOST_FAULTS)
            .map((it) => ({ field: `${it.file}:${it.row}:${it.column}`, message: faultLine(it) })),
          error.faults.length + error.more,
        ),
      },
    };
  }
  const trouble = troubleInWords(error);
  if (trouble !== null) return plain('unavailable', trouble);
  const { type, status, code } = error as { type?: string; status?: number; code?: string };
  if (code === 'LIMIT_UNEXPECTED_FILE')
    return plain('bad-input', 'A file came in a field that is not known here, or one too many');
  if (type === 'entity.too.large' || code?.startsWith('LIMIT_'))
    return plain('too-large', 'What was sent is too large; send it in smaller parts');
  if (type === 'entity.parse.failed') return plain('bad-input', 'body: expected JSON, and it cannot be read as such');
  if (status !== undefined && status >= 400 && status < 500)
    return plain('bad-input', 'The request cannot be read; check its address and its encoding');
  return {
    status: 500,
    reply: {
      code: 'fault',
      message: 'Unexpected error. Nothing was changed; details are in the server log',
      faults: [],
      more: 0,
    },
  };
}

function plain(code: ErrorCode, message: string): { status: number; reply: FaultReply } {
  return { status: STATUS[code], reply: { code, message, faults: [], more: 0 } };
}
