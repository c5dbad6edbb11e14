import type { Sent } from './endpoints';

/**
 * The id each command goes out with, so that the server carries it out once however often it arrives. A command sent again
 * before its answer is there, or after its answer was lost, goes out under the same id.
 */
export class RequestIds {
  private readonly pending = new Map<string, { id: string; count: number }>();
  private readonly lost = new Map<string, string>();

  constructor(private readonly newId: () => string) {}

  /** The id for `sent`. What was lost is asked for again under its own id, even where it was changed since: the server then says what it saved. */
  idOf(sent: Sent): string {
    const key = contentOf(sent);
    const open = this.pending.get(key);
    if (open) {
      open.count += 1;
      return open.id;
    }
    const id = this.lost.get(placeOf(sent)) ?? this.newId();
    this.pending.set(key, { id, count: 1 });
    return id;
  }

  /** The answer to `sent` is there, or it is known that none will come. */
  ended(sent: Sent, answered: boolean): void {
    const key = contentOf(sent);
    const open = this.pending.get(key);
    if (!open) return;
    if (answered) this.lost.delete(placeOf(sent));
    else this.lost.set(placeOf(sent), open.id);
    open.count -= 1;
    if (open.count === 0) this.pending.delete(key);
  }
}

function placeOf({ call, url }: Sent): string {
  return `${call} ${url}`;
}

function contentOf(sent: Sent): string {
  return `${placeOf(sent)} ${JSON.stringify([sent.params, sent.body, sent.asking])}`;
}
