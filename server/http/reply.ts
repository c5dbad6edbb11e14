import type { NextFunction, Request, Response } from 'express';
import * as v from 'valibot';
import { LedrinError, type ErrorCode } from '../../core/errors/ledrinError';
import type { FaultReply } from '../../wire/fault';
import { BookRefused, faultLine } from '../book/checks/bookFaults';

/** The status of every code: one that is missing does not compile. */
const STATUS: Record<ErrorCode, number> = { 'bad-input': 400, 'not-found': 404, conflict: 409, refused: 409, 'too-large': 413 };

/** Reads a request's body or query by its schema; what does not fit is told field by field. */
export function read<Schema extends v.GenericSchema>(schema: Schema, input: unknown): v.InferOutput<Schema> {
  const result = v.safeParse(schema, input);
  if (result.success) return result.output;
  const faults = result.issues.map((issue) => ({ field: v.getDotPath(issue) ?? 'body', message: issueText(issue) }));
  throw new LedrinError('bad-input', `${faults[0]!.field}: ${faults[0]!.message}`, faults);
}

function issueText(issue: v.BaseIssue<unknown>): string {
  if (issue.type === 'strict_object' && issue.expected === 'never') return 'is not known here; leave it out';
  if (issue.type === 'strict_object' && issue.received === 'undefined') return 'is missing';
  return issue.message.startsWith('Invalid') ? `expected ${issue.expected}, found ${issue.received}` : issue.message;
}

/** The last handler: turns what was thrown into an answer that says what to do. Only our own faults are 500. */
export function answerErrors(log: (error: unknown) => void) {
  return (error: unknown, _request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) return next(error);
    const { status, reply } = answerTo(error);
    if (status === 500) log(error);
    response.status(status).json(reply);
  };
}

function answerTo(error: unknown): { status: number; reply: FaultReply } {
  if (error instanceof LedrinError)
    return { status: STATUS[error.code], reply: { code: error.code, message: error.message, faults: [...error.faults] } };
  if (error instanceof BookRefused) {
    return {
      status: 400,
      reply: {
        code: 'bad-input',
        message: error.message,
        faults: error.faults.map((it) => ({ field: `${it.file}:${it.row}:${it.column}`, message: faultLine(it) })),
      },
    };
  }
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
    reply: { code: 'fault', message: 'Ledrin has a fault of its own here. Nothing was changed; the log says more.', faults: [] },
  };
}

function plain(code: ErrorCode, message: string): { status: number; reply: FaultReply } {
  return { status: STATUS[code], reply: { code, message, faults: [] } };
}
