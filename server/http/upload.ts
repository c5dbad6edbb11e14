import type { Request, RequestHandler, Response } from 'express';
import multer from 'multer';
import { LedrinError } from '../../core/errors/ledrinError';

/**
 * Takes uploaded files in. What was sent and cannot be read as files is bad input; only what this machine fails at, such as a
 * full disk, is thrown on as it is.
 */
export async function receive(upload: RequestHandler, request: Request, response: Response): Promise<void> {
  const error = await new Promise<unknown>((done) => void upload(request, response, done));
  if (!error) return;
  if (error instanceof multer.MulterError || (error as NodeJS.ErrnoException).syscall) throw error as Error;
  throw new LedrinError('bad-input', 'What was sent cannot be read as files; choose them again and send them once more');
}
