import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { LedrinError, type ErrorCode, type Fault } from '../../core/errors/ledrinError';
import { BookRefused, type BookFault } from '../book/bookFaults';
import type { TaskArgs, TaskName, TaskReply, TaskResult } from './tasks';

const THREADS = 2;
const MEGABYTES = 1024;
/** Seconds a thread waits for more to do before it ends. */
const IDLE_SECONDS = 60;
/** Seconds a task may take. A book of a million costs is imported in about half a minute. */
const USUAL_SECONDS = 60;
const SECONDS: Partial<Record<TaskName, number>> = { readSheet: 20, importBookAlone: 1800, exportZip: 1800 };

const here = dirname(fileURLToPath(import.meta.url));
const built = join(here, 'worker.mjs');

/** Threads for what takes long: each with an end to its memory and its time, so that one document cannot take the server down. */
export class Workers {
  private pool: Piscina | null = null;

  async run<Name extends TaskName>(name: Name, ...args: TaskArgs<Name>): Promise<TaskResult<Name>> {
    const seconds = SECONDS[name] ?? USUAL_SECONDS;
    const signal = AbortSignal.timeout(seconds * 1000);
    const reply = (await this.opened()
      .run({ name, args }, { signal })
      .catch((error: unknown) => {
        throw errorOf(error, signal.aborted, seconds);
      })) as TaskReply;
    if ('refused' in reply)
      throw new LedrinError(reply.refused.code as ErrorCode, reply.refused.message, reply.refused.faults as readonly Fault[]);
    if ('bookRefused' in reply) throw new BookRefused(reply.bookRefused.faults as readonly BookFault[], reply.bookRefused.more);
    return bytesOf(reply.done) as TaskResult<Name>;
  }

  async close(): Promise<void> {
    await this.pool?.destroy();
    this.pool = null;
  }

  private opened(): Piscina {
    this.pool ??= new Piscina({
      filename: existsSync(built) ? built : join(here, 'start.mjs'),
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: IDLE_SECONDS * 1000,
      resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
    });
    return this.pool;
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
