import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { DayClash } from '../../../../core/daySheets/mergeDays';
import type { DaySheet } from '../../../../core/daySheets/daySheet';
import { stableText } from '../../../../core/lists/stableText';
import type { Fault } from '../../../../core/errors/ledrinError';
import type { DaySheetView, PhonePack } from '../../../../wire/daySheets';

/** Names a day sheet on a phone: whose, and of which job, day and crew. */
export interface SheetKey {
  owner: string;
  job: string;
  dated: string;
  crew: string;
}

/** A day sheet as the phone has it. */
export interface PhoneSheet extends SheetKey {
  jobName: string;
  day: DaySheet;
  /** As the server had it when the two were last the same; null: it has not had it. */
  base: DaySheet | null;
  /** The server's digest of that; empty: none. */
  seen: string;
  /** It was said to be sent, and has not arrived yet. */
  toSend: boolean;
  /** What is left out of two versions that met; goes along with the next sending. */
  leftOut: string;
  /** What both changed, to be decided before it is sent. */
  met: { theirs: DaySheetView; merged: DaySheet; clashes: DayClash[] } | null;
  /** Why the server did not take it. */
  fault: { message: string; faults: readonly Fault[] } | null;
  /** What the server last said of it, with the hours of the week sheet. */
  view: DaySheetView | null;
}

/** A picture as the phone has it. */
export interface PhonePhoto extends SheetKey {
  hash: string;
  picture: Blob;
  /** Refused by the server for good: it is not sent again. */
  state: 'waits' | 'arrived' | 'refused';
}

interface Schema extends DBSchema {
  packs: { key: string; value: PhonePack };
  sheets: { key: [string, string, string, string]; value: PhoneSheet };
  photos: { key: string; value: PhonePhoto };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;
/** The phone's own database: it outlives the page, the browser and a restart. */
function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('ledrin-day-sheets', 1, {
    upgrade(db) {
      db.createObjectStore('packs');
      db.createObjectStore('sheets', { keyPath: ['owner', 'job', 'dated', 'crew'] });
      db.createObjectStore('photos', { keyPath: 'hash' });
    },
  });
  return opened;
}

const OWNER = 'ledrin.day-sheets.owner';

/** What a phone stores, as the pages and the sending use it. */
export const phoneStore = {
  /** Who used this phone last, while there is no connection to ask. */
  owner: (): string | null => localStorage.getItem(OWNER),
  async pack(owner: string): Promise<PhonePack | undefined> {
    return (await database()).get('packs', owner);
  },
  async savePack(owner: string, pack: PhonePack): Promise<void> {
    localStorage.setItem(OWNER, owner);
    await (await database()).put('packs', pack, owner);
  },
  async sheets(owner: string): Promise<PhoneSheet[]> {
    return (await (await database()).getAll('sheets')).filter((it) => it.owner === owner);
  },
  async save(sheet: PhoneSheet): Promise<void> {
    await (await database()).put('sheets', sheet);
  },
  async remove({ owner, job, dated, crew }: SheetKey): Promise<void> {
    await (await database()).delete('sheets', [owner, job, dated, crew]);
  },
  async photos(owner: string): Promise<PhonePhoto[]> {
    return (await (await database()).getAll('photos')).filter((it) => it.owner === owner);
  },
  async photo(hash: string): Promise<PhonePhoto | undefined> {
    return (await database()).get('photos', hash);
  },
  async savePhoto(photo: PhonePhoto): Promise<void> {
    await (await database()).put('photos', photo);
  },
  async removePhoto(hash: string): Promise<void> {
    await (await database()).delete('photos', hash);
  },
};
export type PhoneStore = Pick<typeof phoneStore, 'sheets' | 'save' | 'remove' | 'photos' | 'savePhoto' | 'removePhoto'>;

/** After somebody signed out: nothing of the company stays on the phone but what they have not sent yet. */
export async function forgetPhone(): Promise<void> {
  localStorage.removeItem(OWNER);
  const db = await database();
  await db.clear('packs');
  for (const sheet of await db.getAll('sheets')) if (!isUnsent(sheet)) await phoneStore.remove(sheet);
  for (const photo of await db.getAll('photos')) if (photo.state !== 'waits') await db.delete('photos', photo.hash);
}

/** The sheet says something the server has not. */
export function isUnsent({ day, base, leftOut, toSend }: PhoneSheet): boolean {
  return toSend || base === null || leftOut !== '' || stableText(day) !== stableText(base);
}

/** A sheet of the server as the phone has it. */
export function phoneSheetOf(owner: string, view: DaySheetView): PhoneSheet {
  const { job, jobName, dated, crew, day, seen } = view;
  return {
    owner,
    job,
    jobName,
    dated,
    crew,
    day,
    base: day,
    seen,
    toSend: false,
    leftOut: '',
    met: null,
    fault: null,
    view,
  };
}
