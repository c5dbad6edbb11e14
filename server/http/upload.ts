import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { Request, Response } from 'express';
import multer from 'multer';
import { LedrinError } from '../../core/errors/ledrinError';

/** How much an upload may bring. */
export interface UploadLimits {
  files: number;
  /** Bytes of each file. */
  fileSize: number;
  /** Bytes of all of them. */
  total: number;
}

/** What came: files on disk in a folder that goes when the command is done, and short texts beside them. */
export interface Received {
  folder: string;
  files: { name: string; path: string; mediaType: string; size: number }[];
  fields: Readonly<Record<string, string>>;
}

const FIELDS = { fields: 3, fieldSize: 400, parts: 20_010 };

/** Takes files to disk as they come, since they may be larger than memory, and removes them when `work` is done. */
export async function receiving<T>(
  request: Request,
  response: Response,
  limits: UploadLimits,
  work: (received: Received) => Promise<T>,
): Promise<T> {
  if (Number(request.get('content-length') ?? 0) > limits.total)
    throw new LedrinError('too-large', 'What was sent is too large; send it in smaller parts');
  const folder = mkdtempSync(join(tmpdir(), 'ledrin-upload-'));
  try {
    return await work(await receive(request, response, folder, limits));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What was sent and cannot be read as files is bad input; only what this machine fails at, such as a full disk, is thrown on as it is. */
async function receive(request: Request, response: Response, folder: string, limits: UploadLimits): Promise<Received> {
  const upload = multer({
    storage: multer.diskStorage({ destination: folder, filename: (_request, file, done) => done(null, nameOf(file)) }),
    limits: { ...FIELDS, files: limits.files, fileSize: limits.fileSize },
    // A name no disk takes is passed over, as any file is that is none of a book.
    fileFilter: (_request, file, done) => done(null, isFileName(nameOf(file))),
  }).array(limits.files === 1 ? 'file' : 'files');
  const error = await new Promise<unknown>((done) => void upload(request, response, done));
  if (error instanceof multer.MulterError || (error as NodeJS.ErrnoException | undefined)?.syscall) throw error as Error;
  if (error)
    throw new LedrinError('bad-input', 'What was sent cannot be read as files; choose them again and send them once more');
  const files = Array.isArray(request.files) ? request.files : [];
  return {
    folder,
    files: files.map((it) => ({ name: nameOf(it), path: it.path, mediaType: it.mimetype, size: it.size })),
    fields: fieldsOf(request.body),
  };
}

/** A browser sends names as UTF-8, the multipart reader reads them as Latin-1. */
function nameOf(file: Express.Multer.File): string {
  return basename(Buffer.from(file.originalname, 'latin1').toString('utf8'));
}

function isFileName(name: string): boolean {
  return name !== '' && !/^\.+$/.test(name) && !/\p{Cc}/u.test(name) && Buffer.byteLength(name) <= 200;
}

function fieldsOf(body: unknown): Record<string, string> {
  if (typeof body !== 'object' || body === null) return {};
  return Object.fromEntries(Object.entries(body).flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])));
}

/** The one file of an upload. Throws bad-input where none came. */
export function oneFile(received: Received | null, expected: string): Received['files'][number] {
  const [file] = received?.files ?? [];
  if (!file)
    throw new LedrinError('bad-input', `file: expected ${expected}`, [{ field: 'file', message: `expected ${expected}` }]);
  return file;
}
