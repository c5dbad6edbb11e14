import { closeConnection, type Connection } from './connection';

/** Who reads: a person, whose reads take turns; or null, the door itself, whose reads are small. */
export type ReadBy = string | null;

interface Waiting {
  by: ReadBy;
  go: (reader: Connection) => void;
}

/**
 * A few reading connections, each used by one at a time. One person has half of them at most, and all persons leave some for the door:
 * whoever asks for much at once waits for themselves, and others are answered meanwhile.
 */
export class ReaderPool {
  private readonly free: Connection[];
  private readonly all: readonly Connection[];
  private readonly waiting: Waiting[] = [];
  private readonly taken = new Map<string, number>();
  private ofPersons = 0;
  private readonly each: number;
  private readonly mostOfPersons: number;

  /** `forDoor`: connections that no person takes. */
  constructor(open: () => Connection, count: number, forDoor: number) {
    this.all = Array.from({ length: count }, open);
    this.free = [...this.all];
    this.each = Math.max(1, Math.floor(count / 2));
    this.mostOfPersons = Math.max(1, count - forDoor);
  }

  async use<T>(work: (reader: Connection) => Promise<T>, by: ReadBy = null): Promise<T> {
    const reader = await new Promise<Connection>((go) => {
      this.waiting.push({ by, go });
      this.serve();
    });
    try {
      return await work(reader);
    } finally {
      this.count(by, -1);
      this.free.push(reader);
      this.serve();
    }
  }

  private mayTake(by: ReadBy): boolean {
    return by === null || (this.ofPersons < this.mostOfPersons && (this.taken.get(by) ?? 0) < this.each);
  }

  private count(by: ReadBy, change: 1 | -1): void {
    if (by === null) return;
    this.ofPersons += change;
    const now = (this.taken.get(by) ?? 0) + change;
    if (now === 0) this.taken.delete(by);
    else this.taken.set(by, now);
  }

  /** Gives what is free to those who wait, in their order, but for those who have their share. */
  private serve(): void {
    for (let next = this.next(); next !== null; next = this.next()) {
      const reader = this.free.pop();
      if (!reader) return;
      this.waiting.splice(this.waiting.indexOf(next), 1);
      this.count(next.by, 1);
      next.go(reader);
    }
  }

  private next(): Waiting | null {
    if (this.free.length === 0) return null;
    return this.waiting.find(({ by }) => this.mayTake(by)) ?? null;
  }

  async close(): Promise<void> {
    await Promise.all(this.all.map(closeConnection));
  }
}
