import { LedrinError, type ErrorCode, type Fault } from '../../core/errors/ledrinError';
import { BookRefused, type BookFault } from '../../core/errors/bookFaults';
import { Lane } from './lane';
import type { TaskArgs, TaskName, TaskReply, TaskResult } from './tasks';

/** Threads by what they are for: nobody who signs in waits for a document, and no document for a book. */
const THREADS = { passwords: 2, documents: 2, books: 1 } as const;
type LaneName = keyof typeof THREADS;

/** Seconds a task may take. A book of a million costs is imported in about a minute. */
const USUAL_SECONDS = 60;
const BOOK_SECONDS = 1800;
const SECONDS: Partial<Record<TaskName, number>> = { readSheet: 20, importBookAlone: BOOK_SECONDS, exportZip: BOOK_SECONDS };
const LANES: Partial<Record<TaskName, LaneName>> = {
  hashPassword: 'passwords',
  matchesPassword: 'passwords',
  importBookAlone: 'books',
  exportZip: 'books',
  previewImport: 'books',
};

/** Threads for what takes long: each with an end to its memory and its time, so that one document cannot take the server down. */
export class Workers {
  private readonly lanes = Object.fromEntries(
    Object.entries(THREADS).map(([name, threads]) => [name, new Lane(threads)]),
  ) as Record<LaneName, Lane>;

  async run<Name extends TaskName>(name: Name, ...args: TaskArgs<Name>): Promise<TaskResult<Name>> {
    const seconds = SECONDS[name] ?? USUAL_SECONDS;
    const ended = await this.lanes[LANES[name] ?? 'documents'].run({ name, args }, seconds);
    if ('error' in ended) throw errorOf(ended.error, ended.timedOut, seconds);
    const reply = ended.reply as TaskReply;
    if ('refused' in reply)
      throw new LedrinError(reply.refused.code as ErrorCode, reply.refused.message, reply.refused.faults as readonly Fault[]);
    if ('bookRefused' in reply) throw new BookRefused(reply.bookRefused.faults as readonly BookFault[], reply.bookRefused.more);
    return bytesOf(reply.done) as TaskResult<Name>;
  }

  async close(): Promise<void> {
    await Promise.all(Object.values(this.lanes).map((lane) => lane.close()));
  }
}

function errorOf(error: unknown, timedOut: boolean, seconds: number): unknown {
  if (timedOut) return new LedrinError('too-large', `This takes longer than ${seconds} seconds; try with less at once`);
  if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new LedrinError('too-large', 'This needs more memory than it may take; try with less at once');
  return error;
}

/** A Buffer arrives from another thread as plain bytes. */
function bytesOf(value: unknown): unknown {
  return value instanceof Uint8Array ? Buffer.from(value.buffer, value.byteOffset, value.byteLength) : value;
}
