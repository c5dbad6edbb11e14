import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';

const MEGABYTES = 1024;
/** Seconds a thread waits for more to do before it ends. */
const IDLE_SECONDS = 60;

const here = dirname(fileURLToPath(import.meta.url));
const built = join(here, 'worker.mjs');

/**
 * A few threads with a queue of their own. What waits is handed to a thread only once one is free, so that a limit of time counts
 * work alone, and a task that is ended makes room for the next.
 */
export class Lane {
  private pool: Piscina | null = null;
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(private readonly threads: number) {}

  /** Carries out a task, for at most so many seconds once it has begun. `timedOut` tells whether it was ended by that. */
  async run(task: unknown, seconds: number): Promise<{ reply: unknown } | { error: unknown; timedOut: boolean }> {
    if (this.running >= this.threads) await new Promise<void>((begin) => this.waiting.push(begin));
    else this.running++;
    const signal = AbortSignal.timeout(seconds * 1000);
    try {
      return { reply: await this.opened().run(task, { signal }) };
    } catch (error) {
      return { error, timedOut: signal.aborted };
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.running--;
    }
  }

  async close(): Promise<void> {
    await this.pool?.destroy();
    this.pool = null;
  }

  private opened(): Piscina {
    this.pool ??= new Piscina({
      filename: existsSync(built) ? built : join(here, 'start.mjs'),
      minThreads: 0,
      maxThreads: this.threads,
      idleTimeout: IDLE_SECONDS * 1000,
      resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
    });
    return this.pool;
  }
}
