import { EMPTY_DAY } from '../../../../core/daySheets/daySheet';
import { mergeDays } from '../../../../core/daySheets/mergeDays';
import type { SentOf } from '../../../../wire/call';
import type { daySheetCalls, DaySheetView, PhonePack } from '../../../../wire/daySheets';
import { isUnsent, keptOf, type KeptPhoto, type KeptSheet, type PhoneStore } from './phoneStore';

/** How the server refuses, as far as sending asks. */
export interface Refusal {
  /** Words for a request that did not get through; else the HTTP status. */
  status: number | string;
  message: string;
  faults: KeptSheet['fault'] extends infer F ? (F extends { faults: infer L } ? L : never) : never;
}

/** What sending asks of the server; each throws a `Refusal`. */
export interface Line {
  save(sheet: SentOf<typeof daySheetCalls.saveDaySheet>): Promise<unknown>;
  view(key: SentOf<typeof daySheetCalls.daySheet>): Promise<DaySheetView>;
  sendPhoto(photo: KeptPhoto): Promise<unknown>;
}

const CONFLICT = 409;
const NOT_FOUND = 404;
/** How often two versions are brought together by themselves before it is left for the next time. */
const MOST_ROUNDS = 5;

/**
 * Sends every sheet that waits, then the pictures; each may have been sent before. False where the connection failed: all of it
 * waits for the next time. What the server refuses stays on the phone with its reason.
 */
export async function sendAll(store: PhoneStore, line: Line, owner: string): Promise<boolean> {
  for (const sheet of (await store.sheets(owner)).filter((it) => it.toSend && it.met === null))
    if (!(await sendSheet(store, line, sheet))) return false;
  for (const photo of (await store.photos(owner)).filter((it) => !it.arrived)) {
    const refused = await tried(() => line.sendPhoto(photo));
    if (refused && isNoAnswer(refused)) return false;
    // The sheet that names it has not arrived: the picture goes with it.
    if (!refused) await store.savePhoto({ ...photo, arrived: true });
  }
  return true;
}

async function sendSheet(store: PhoneStore, line: Line, sheet: KeptSheet): Promise<boolean> {
  let now = sheet;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const { job, dated, crew, seen, day, leftOut } = now;
    const key = { job, dated, crew };
    const refused = await tried(() => line.save({ ...key, body: { seen, day, leftOut } }));
    if (!refused) {
      const view = await answer(() => line.view(key));
      if (!view) return false;
      await store.save(keptOf(now.owner, view));
      return true;
    }
    if (isNoAnswer(refused)) return false;
    const theirs = refused.status === CONFLICT ? await answer(() => line.view(key)) : null;
    if (!theirs) {
      // What was deleted meanwhile is sent as new, once somebody says so again.
      const gone = refused.status === NOT_FOUND && seen !== '' ? { seen: '', base: null } : {};
      await store.save({ ...now, ...gone, toSend: false, fault: refused });
      return true;
    }
    now = metWith(now, theirs);
    await store.save(now);
    if (now.met) return true;
  }
  return true;
}

/** The sheet with what the server has brought in; `met` where both changed the same. */
export function metWith(mine: KeptSheet, theirs: DaySheetView): KeptSheet {
  const { merged, clashes } = mergeDays(mine.base ?? EMPTY_DAY, mine.day, theirs.day);
  const on = { ...mine, base: theirs.day, seen: theirs.seen, view: theirs, fault: null };
  return clashes.length === 0 ? { ...on, day: merged, met: null } : { ...on, met: { theirs, merged, clashes } };
}

/** Takes in what the server has of the last days; what was changed here and not sent stays as it is. */
export async function takeIn(store: PhoneStore, owner: string, pack: PhonePack): Promise<void> {
  const there = await store.sheets(owner);
  const nameOf = (it: { job: string; dated: string; crew: string }) => JSON.stringify([it.job, it.dated, it.crew]);
  const mine = new Map(there.map((it) => [nameOf(it), it]));
  const theirs = new Map(pack.sheets.map((it) => [nameOf(it), it]));
  for (const [name, view] of theirs) {
    const kept = mine.get(name);
    if (!kept || !isUnsent(kept)) await store.save(keptOf(owner, view));
  }
  for (const [name, kept] of mine) if (!theirs.has(name) && !isUnsent(kept)) await store.remove(kept);
}

async function tried(work: () => Promise<unknown>): Promise<Refusal | null> {
  try {
    await work();
    return null;
  } catch (error) {
    return error as Refusal;
  }
}

async function answer<T>(work: () => Promise<T>): Promise<T | null> {
  try {
    return await work();
  } catch {
    return null;
  }
}

/** Nobody answered, the server has a fault of its own, or somebody has to sign in again: the same may get through later. */
function isNoAnswer({ status }: Refusal): boolean {
  return typeof status === 'string' || status >= 500 || status === 401 || status === 429;
}
