import { closeConnection, type Connection } from './connection';

/** A few reading connections, each used by one at a time; whoever comes when none is free waits for the first that is. */
export class ReaderPool {
  private readonly free: Connection[];
  private readonly all: readonly Connection[];
  private readonly waiting: ((reader: Connection) => void)[] = [];

  constructor(open: () => Connection, count: number) {
    this.all = Array.from({ length: count }, open);
    this.free = [...this.all];
  }

  async use<T>(work: (reader: Connection) => Promise<T>): Promise<T> {
    const reader = this.free.pop() ?? (await new Promise<Connection>((done) => this.waiting.push(done)));
    try {
      return await work(reader);
    } finally {
      const next = this.waiting.shift();
      if (next) next(reader);
      else this.free.push(reader);
    }
  }

  async close(): Promise<void> {
    await Promise.all(this.all.map(closeConnection));
  }
}
