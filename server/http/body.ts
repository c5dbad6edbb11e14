import express, { type Request, type RequestHandler, type Response } from 'express';
import type * as v from 'valibot';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Call } from '../../wire/call';

const KB = 1024;
/** What may be sent before anybody is signed in: a name and a password, an answer with its words. */
export const OPEN_BODY = 64 * KB;
const USUAL_BODY = 1024 * KB;
/** A job of 5,000 lines and 20,000 budget lines fits. */
const LARGE_BODY = 8 * 1024 * KB;
/** A call whose lists may be longer than this takes a large body. */
const MANY = 500;

/** No input of ours is nested deeper. */
const DEEPEST = 20;
/** Values, and names of values, in one body: a job of 5,000 lines and 20,000 budget lines has some 400,000. */
const MOST_VALUES = 800_000;

/** Bytes a call's body may have: little where nobody need be signed in, much only where its input has long lists. */
export function bodyLimit({ who, input }: Pick<Call, 'who' | 'input'>): number {
  if (who === 'open') return OPEN_BODY;
  return input !== null && longestList(input) > MANY ? LARGE_BODY : USUAL_BODY;
}

/** How long the longest list in an input may be, read off its schema. */
function longestList(schema: unknown): number {
  if (typeof schema !== 'object' || schema === null) return 0;
  const { type, requirement, entries, pipe, item, wrapped, options, expects, value } = schema as Record<string, unknown>;
  // A draft as it is typed: whatever stands on a page.
  if (type === 'record' && (value as { type?: string }).type === 'unknown') return Infinity;
  const inside = [entries, pipe, options].flatMap((it) => (typeof it === 'object' && it !== null ? Object.values(it) : []));
  const isLength = type === 'max_length' && expects !== undefined;
  const own = isLength && typeof requirement === 'number' ? requirement : 0;
  const isList = Array.isArray(pipe) && pipe.some((it) => (it as v.GenericSchema).type === 'array');
  // The most characters of a text are no list.
  const parts = isList ? inside : inside.filter((it) => (it as { type?: string }).type !== 'max_length');
  return Math.max(own, ...[...parts, item, wrapped].map(longestList));
}

/** Throws bad-input where a body in JSON is nested deeper, or has more values, than any input: looked at byte by byte, before it is parsed. */
export function assertPlain(bytes: Uint8Array): void {
  let [depth, values, inText] = [0, 0, false];
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i];
    if (inText) {
      if (byte === BACKSLASH) i++;
      else if (byte === QUOTE) inText = false;
    } else if (byte === QUOTE) inText = true;
    else if (byte === COMMA || byte === COLON) values++;
    else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
      values++;
      if (++depth > DEEPEST) throw new LedrinError('bad-input', `body: is nested deeper than ${DEEPEST} levels`);
    } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth--;
    if (values > MOST_VALUES)
      throw new LedrinError(
        'too-large',
        `body: has more than ${MOST_VALUES.toLocaleString('en')} values; send it in smaller parts`,
      );
  }
}

const [QUOTE, BACKSLASH, COMMA, COLON, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'"\\,:[]{}'].map((it) =>
  it.charCodeAt(0),
);

/** Reads a JSON body of at most `limit` bytes. */
export function jsonBody(limit: number): RequestHandler {
  return express.json({ limit, verify: (_request, _response, bytes) => assertPlain(bytes) });
}

/** Reads a request's body, once it is known that whoever sends it may. */
export function receiveBody(read: RequestHandler, request: Request, response: Response): Promise<void> {
  return new Promise((done, fail) => void read(request, response, (error?: unknown) => (error ? fail(error as Error) : done())));
}
