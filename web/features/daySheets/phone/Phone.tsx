import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { api } from '../../../ground/api/api';
import { store } from '../../../ground/api/store';
import { faultOf } from '../../../ground/faults';
import type { PhonePack } from '../../../../wire/daySheets';
import { phoneStore, type PhonePhoto, type PhoneSheet, type SheetKey } from './phoneStore';
import { isWaiting, sendAll, takeIn, type Line, type Refusal } from './sendSheets';

/** What the pages of day sheets work with, with a connection or without. */
export interface Phone {
  owner: string;
  /** Null before the phone was online for the first time. */
  pack: PhonePack | null;
  sheets: readonly PhoneSheet[];
  /** Whether the server answered the last time it was asked; null before it was. */
  connected: boolean | null;
  /** Everything is stored that the pages need without a connection. */
  ready: boolean;
  /** Writes a sheet down on the phone, at once. */
  save: (sheet: PhoneSheet) => Promise<void>;
  remove: (sheet: SheetKey) => Promise<void>;
  addPhoto: (photo: PhonePhoto) => Promise<void>;
  /** Sends what waits; later again by itself, where it does not get through. */
  send: () => Promise<void>;
}

const PhoneContext = createContext<Phone | null>(null);

export function usePhone(): Phone {
  const phone = useContext(PhoneContext);
  if (!phone) throw new Error('Day sheets are shown inside of Phone');
  return phone;
}

/** How long it is before what waits is tried again, in milliseconds. */
const AGAIN_AFTER = 10_000;

/** The day sheets of somebody on this phone: read from it, sent when there is a connection. */
export function PhoneOf({ owner, children }: { owner: string; children: ReactNode }) {
  const [pack, setPack] = useState<PhonePack | null>(null);
  const [sheets, setSheets] = useState<readonly PhoneSheet[] | null>(null);
  const [connected, setConnected] = useState<boolean | null>(null);
  const [worker, setWorker] = useState(false);
  useEffect(() => void workerIsReady().then(() => setWorker(true)), []);
  const lost = useRef(false);
  const read = useCallback(async () => {
    setPack((await phoneStore.pack(owner)) ?? null);
    setSheets(await phoneStore.sheets(owner));
  }, [owner]);
  const sync = useOneAtATime(
    useCallback(async () => {
      const sent = await sendAll(phoneStore, LINE, owner);
      const fetched = sent ? await fetchedPack() : null;
      if (fetched) {
        await phoneStore.savePack(owner, fetched);
        await takeIn(phoneStore, owner, fetched);
      }
      lost.current = fetched === null;
      setConnected(fetched !== null);
      await read();
    }, [owner, read]),
  );
  useEffect(() => {
    void read().then(sync);
    const again = () => void sync();
    const hidden = () => document.visibilityState === 'visible' && again();
    window.addEventListener('online', again);
    document.addEventListener('visibilitychange', hidden);
    const retry = async () => {
      if (lost.current || (await isWaiting(phoneStore, owner))) void again();
    };
    // A phone is not always told that it has a line again.
    const timer = setInterval(() => void retry(), AGAIN_AFTER);
    return () => {
      window.removeEventListener('online', again);
      document.removeEventListener('visibilitychange', hidden);
      clearInterval(timer);
    };
  }, [owner, read, sync]);
  const phone = useMemo((): Phone | null => {
    if (sheets === null) return null;
    const save = async (sheet: PhoneSheet) => {
      setSheets((before) => [...(before ?? []).filter((it) => !isSame(it, sheet)), sheet]);
      await phoneStore.save(sheet);
    };
    const remove = async (sheet: SheetKey) => {
      setSheets((before) => (before ?? []).filter((it) => !isSame(it, sheet)));
      await phoneStore.remove(sheet);
    };
    const ready = worker && pack !== null;
    return { owner, pack, sheets, connected, ready, save, remove, addPhoto: phoneStore.savePhoto, send: sync };
  }, [owner, pack, sheets, connected, worker, sync]);
  if (!phone) return null;
  return <PhoneContext value={phone}>{children}</PhoneContext>;
}

export function isSame(a: SheetKey, b: SheetKey): boolean {
  return a.owner === b.owner && a.job === b.job && a.dated === b.dated && a.crew === b.crew;
}

/** Settles once the worker has stored the pages themselves; never where the browser has none. */
async function workerIsReady(): Promise<void> {
  if (!('serviceWorker' in navigator)) return new Promise(() => undefined);
  const { active } = await navigator.serviceWorker.ready;
  if (!active || active.state === 'activated') return;
  await new Promise<void>((done) => active.addEventListener('statechange', () => active.state === 'activated' && done()));
}

/** Runs `work` once at a time; asked for meanwhile, once more afterwards. */
function useOneAtATime(work: () => Promise<void>): () => Promise<void> {
  const running = useRef<Promise<void> | null>(null);
  const asked = useRef(false);
  return useCallback(async () => {
    asked.current = true;
    running.current ??= (async () => {
      while (asked.current) {
        asked.current = false;
        await work();
      }
    })().finally(() => (running.current = null));
    await running.current;
  }, [work]);
}

async function fetchedPack(): Promise<PhonePack | null> {
  const asked = store.dispatch(api.endpoints.phonePack.initiate(undefined, { forceRefetch: true, subscribe: false }));
  return (await asked).data ?? null;
}

/** An error of a request as sending takes it. */
function refusalOf(error: unknown): Refusal {
  const { status } = (error ?? {}) as { status?: number | string };
  const { message, faults } = faultOf(error);
  return { status: status ?? 'FETCH_ERROR', message, faults };
}

async function unwrapped<T>(sent: { unwrap: () => Promise<T> }): Promise<T> {
  try {
    return await sent.unwrap();
  } catch (error) {
    throw refusalOf(error);
  }
}

const LINE: Line = {
  save: (sheet) => unwrapped(store.dispatch(api.endpoints.saveDaySheet.initiate(sheet))),
  view: (key) => unwrapped(store.dispatch(api.endpoints.daySheet.initiate(key, { forceRefetch: true, subscribe: false }))),
  sendPhoto: ({ job, dated, crew, hash, picture }) => {
    const body = new FormData();
    body.append('file', picture, `${hash.slice(0, 6)}.jpg`);
    return unwrapped(store.dispatch(api.endpoints.addDayPhoto.initiate({ job, dated, crew, body })));
  },
};
