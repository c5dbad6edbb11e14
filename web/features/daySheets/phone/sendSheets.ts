import { EMPTY_DAY } from '../../../../core/daySheets/daySheet';
import { mergeDays } from '../../../../core/daySheets/mergeDays';
import type { SentOf } from '../../../../wire/call';
import type { daySheetCalls, DaySheetView, PhonePack } from '../../../../wire/daySheets';
import { stableText } from '../../../../core/lists/stableText';
import { isUnsent, phoneSheetOf, type PhonePhoto, type PhoneSheet, type PhoneStore } from './phoneStore';

/** How the server refuses, as far as sending asks. */
export interface Refusal {
  /** Words for a request that did not get through; else the HTTP status. */
  status: number | string;
  message: string;
  faults: PhoneSheet['fault'] extends infer F ? (F extends { faults: infer L } ? L : never) : never;
}

/** What sending asks of the server; each throws a `Refusal`. */
export interface Line {
  save(sheet: SentOf<typeof daySheetCalls.saveDaySheet>): Promise<unknown>;
  view(key: SentOf<typeof daySheetCalls.daySheet>): Promise<DaySheetView>;
  sendPhoto(photo: PhonePhoto): Promise<unknown>;
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
  for (const sheet of (await store.sheets(owner)).filter(isToSend)) if (!(await sendSheet(store, line, sheet))) return false;
  for (const photo of photosToSend(await store.photos(owner), await store.sheets(owner))) {
    const refused = await tried(() => line.sendPhoto(photo));
    if (refused && isNoAnswer(refused)) return false;
    await store.savePhoto({ ...photo, state: refused ? 'refused' : 'arrived' });
  }
  return true;
}

/** Whether anything waits to be sent. */
export async function isWaiting(store: PhoneStore, owner: string): Promise<boolean> {
  const sheets = await store.sheets(owner);
  return sheets.some(isToSend) || photosToSend(await store.photos(owner), sheets).length > 0;
}

const isToSend = (it: PhoneSheet) => it.toSend && it.met === null;

/** Pictures that a sheet names as the server has it: before that it would not take them. */
function photosToSend(photos: readonly PhonePhoto[], sheets: readonly PhoneSheet[]): PhonePhoto[] {
  const named = new Set(sheets.flatMap(({ base }) => (base ? [...base.photos, ...base.deliveries] : [])).map((it) => it.photo));
  return photos.filter((it) => it.state === 'waits' && named.has(it.hash));
}

async function sendSheet(store: PhoneStore, line: Line, first: PhoneSheet): Promise<boolean> {
  const { job, dated, crew } = first;
  const key = { job, dated, crew };
  // Somebody may go on typing while it is sent: what the phone has is read again each time, and never written over by what was sent.
  const current = async () => (await store.sheets(first.owner)).find((it) => isOf(it, first));
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const now = await current();
    if (!now || !isToSend(now)) return true;
    const { seen, day, leftOut } = now;
    const refused = await tried(() => line.save({ ...key, body: { seen, day, leftOut } }));
    if (refused && isNoAnswer(refused)) return false;
    const theirs = !refused || refused.status === CONFLICT ? await answer(() => line.view(key)) : null;
    const after = (await current()) ?? now;
    if (!refused) {
      if (!theirs) return false;
      await store.save(arrived(after, now, theirs));
      return true;
    }
    // The line went between the answer and what the office has: the same is sent once more, later.
    if (!theirs && refused.status === CONFLICT) return false;
    if (!theirs) {
      // What was deleted meanwhile is sent as new, once somebody says so again.
      const gone = refused.status === NOT_FOUND && seen !== '' ? { seen: '', base: null } : {};
      await store.save({ ...after, ...gone, toSend: false, fault: refused });
      return true;
    }
    await store.save(metWith(after, theirs));
  }
  return true;
}

const isOf = (a: PhoneSheet, b: PhoneSheet) => a.job === b.job && a.dated === b.dated && a.crew === b.crew;

/** A sheet that was sent: as the server has it, with what was typed since. */
function arrived(after: PhoneSheet, sent: PhoneSheet, theirs: DaySheetView): PhoneSheet {
  const stored = phoneSheetOf(sent.owner, theirs);
  if (stableText(after.day) === stableText(sent.day)) return stored;
  return { ...stored, day: mergeDays(sent.day, after.day, theirs.day).merged, toSend: after.toSend };
}

/** The sheet with what the server has brought in; `met` where both changed the same. */
export function metWith(mine: PhoneSheet, theirs: DaySheetView): PhoneSheet {
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
    const stored = mine.get(name);
    if (!stored || !isUnsent(stored)) await store.save(phoneSheetOf(owner, view));
  }
  for (const [name, stored] of mine) if (!theirs.has(name) && !isUnsent(stored)) await store.remove(stored);
  // Pictures go with the last sheet that names them.
  const days = (await store.sheets(owner)).map((it) => it.day);
  const named = new Set(days.flatMap((it) => [...it.photos, ...it.deliveries]).map((it) => it.photo));
  for (const { hash, state } of await store.photos(owner))
    if (state !== 'waits' && !named.has(hash)) await store.removePhoto(hash);
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
