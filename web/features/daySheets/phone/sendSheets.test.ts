import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_DAY, type DaySheet } from '../../../../core/daySheets/daySheet';
import { stableText } from '../../../../core/lists/stableText';
import type { DaySheetView } from '../../../../wire/daySheets';
import { phoneSheetOf, type PhonePhoto, type PhoneSheet, type PhoneStore } from './phoneStore';
import { sendAll, takeIn, type Line } from './sendSheets';

const KEY = { job: 'J1', dated: '2031-03-04', crew: 'Ann' };
const day = (more: Partial<DaySheet>): DaySheet => ({ ...EMPTY_DAY, ...more });
const viewOf = (it: DaySheet): DaySheetView => ({
  ...KEY,
  jobName: 'Mill',
  seen: stableText(it),
  day: it,
  leftOut: '',
  writtenBy: '',
  writtenAt: '',
  weekSheet: '',
  weekHours: [],
  differs: false,
  differences: [],
  arrived: [],
});
const mine = (it: DaySheet, more: Partial<PhoneSheet> = {}): PhoneSheet => ({
  ...phoneSheetOf('Ann', viewOf(EMPTY_DAY)),
  base: null,
  seen: '',
  day: it,
  toSend: true,
  ...more,
});

/** What does not get through: a request, its answer, or what the office has. */
type Fail = 'asking' | 'answering' | 'viewing' | null;

/** A phone and a server of one sheet; `fails` says how often a request does not get through, or its answer is lost. */
function between(sheet: PhoneSheet, there: DaySheet | null, fails: Fail[] = []) {
  const phone = { sheet: sheet as PhoneSheet | null, photos: [] as PhonePhoto[] };
  /** What somebody types while a request is on its way. */
  const meanwhile = { type: null as Partial<DaySheet> | null };
  const server = { day: there, saved: 0, photos: 0, leftOut: '' };
  const lost = { status: 'FETCH_ERROR', message: 'no line', faults: [] };
  const store: PhoneStore = {
    sheets: async () => (phone.sheet ? [phone.sheet] : []),
    save: async (it) => void (phone.sheet = it),
    remove: async () => void (phone.sheet = null),
    photos: async () => phone.photos,
    removePhoto: async (hash) => void (phone.photos = phone.photos.filter((it) => it.hash !== hash)),
    savePhoto: async (it) => void (phone.photos = phone.photos.map((one) => (one.hash === it.hash ? it : one))),
  };
  const line: Line = {
    save: async ({ body }) => {
      if (meanwhile.type && phone.sheet)
        phone.sheet = { ...phone.sheet, day: { ...phone.sheet.day, ...meanwhile.type }, toSend: false };
      meanwhile.type = null;
      const fail = fails.shift() ?? null;
      if (fail === 'asking') throw lost;
      const same = server.day !== null && stableText(server.day) === stableText(body.day);
      if (!same && server.day !== null && body.seen !== stableText(server.day))
        throw { status: 409, message: 'changed', faults: [] };
      if (!same) server.saved += 1;
      server.day = body.day as DaySheet;
      server.leftOut = body.leftOut;
      if (fail === 'answering') throw lost;
    },
    view: async () => {
      if (fails[0] === 'viewing') throw (fails.shift(), lost);
      return viewOf(server.day!);
    },
    sendPhoto: async () => void (server.photos += 1),
  };
  return {
    phone,
    server,
    meanwhile,
    send: () => sendAll(store, line, 'Ann'),
    takeIn: (...sheets: DaySheetView[]) => takeIn(store, 'Ann', { sheets } as never),
  };
}

test('without a connection it waits; an answer that is lost on the way is sent again, and is there once', async () => {
  const { phone, server, send } = between(mine(day({ notes: 'Rain' })), null, ['asking', 'answering', null]);
  expect([await send(), phone.sheet!.toSend, server.saved]).toEqual([false, true, 0]);
  expect([await send(), phone.sheet!.toSend, server.saved]).toEqual([false, true, 1]);
  expect([await send(), phone.sheet!.toSend, server.saved]).toEqual([true, false, 1]);
  expect([phone.sheet!.base, phone.sheet!.seen]).toEqual([server.day, stableText(server.day)]);
});

test('what the office changed elsewhere on the sheet is brought in by itself; what both changed is asked and not sent', async () => {
  const base = day({ weather: 'Dry' });
  const sent = mine(day({ weather: 'Dry', notes: 'Late start' }), { base, seen: stableText(base) });
  const { phone, server, send } = between(sent, day({ weather: 'Rain' }));
  expect(await send()).toBe(true);
  expect([server.day, phone.sheet!.day]).toEqual([day({ weather: 'Rain', notes: 'Late start' }), server.day]);
  // Both say another weather: the phone keeps its own, and the server the office's.
  const clash = between(mine(day({ weather: 'Snow' }), { base, seen: stableText(base) }), day({ weather: 'Rain' }));
  await clash.send();
  expect(clash.phone.sheet!.met!.clashes).toEqual([{ part: 'weather', mine: 'Snow', theirs: 'Rain' }]);
  expect([clash.phone.sheet!.day.weather, clash.server.day!.weather]).toEqual(['Snow', 'Rain']);
  await clash.send();
  expect(clash.server.day!.weather).toBe('Rain');
});

test('a line that goes just after the office was found to have changed it loses nothing: it goes on waiting', async () => {
  const base = day({ weather: 'Dry' });
  const sent = mine(day({ weather: 'Dry', notes: 'Late start' }), { base, seen: stableText(base) });
  const { phone, server, send } = between(sent, day({ weather: 'Rain' }), [null, 'viewing']);
  expect([await send(), phone.sheet!.toSend, phone.sheet!.fault]).toEqual([false, true, null]);
  expect([await send(), server.day]).toEqual([true, day({ weather: 'Rain', notes: 'Late start' })]);
});

test('a sheet that is refused stays with its reason; what is not sent is not written over by what comes from the office', async () => {
  const { phone, send, takeIn } = between(mine(day({ notes: 'mine' })), null);
  const refusing = { status: 400, message: 'Job J1 is locked', faults: [{ field: 'job', message: 'locked' }] };
  const store = { ...between(mine(day({})), null) };
  expect(store.phone.sheet!.fault).toBeNull();
  await takeIn(viewOf(day({ notes: 'theirs' })));
  expect(phone.sheet!.day.notes).toBe('mine');
  await send();
  await takeIn(viewOf(day({ notes: 'theirs' })));
  expect(phone.sheet!.day.notes).toBe('theirs');
  // Deleted in the office, and nothing of it unsent: it goes from the phone as well.
  await takeIn();
  expect(phone.sheet).toBeNull();
  const held = mine(day({ notes: 'x' }));
  let stored: PhoneSheet = held;
  const line = { save: () => Promise.reject(refusing), view: () => Promise.reject(refusing), sendPhoto: async () => {} };
  const only: PhoneStore = {
    sheets: async () => [stored],
    save: async (it) => void (stored = it),
    remove: async () => {},
    photos: async () => [],
    savePhoto: async () => {},
    removePhoto: async () => {},
  };
  expect(await sendAll(only, line, 'Ann')).toBe(true);
  expect([stored.fault?.message, stored.toSend, stored.day.notes]).toEqual(['Job J1 is locked', false, 'x']);
});

test('what is typed while it is sent stays, and is to be sent in its turn', async () => {
  const { phone, server, meanwhile, send } = between(mine(day({ notes: 'Rain' })), null);
  meanwhile.type = { weather: 'Snow' };
  await send();
  expect([server.day, phone.sheet!.day, phone.sheet!.toSend]).toEqual([
    day({ notes: 'Rain' }),
    day({ notes: 'Rain', weather: 'Snow' }),
    false,
  ]);
  phone.sheet = { ...phone.sheet!, toSend: true };
  await send();
  expect(server.day).toEqual(day({ notes: 'Rain', weather: 'Snow' }));
});

test('a picture goes after the sheet that names it, once; one that arrived goes from the phone with the last sheet that names it', async () => {
  const photo = (hash: string): PhonePhoto => ({ ...KEY, owner: 'Ann', hash, picture: new Blob(), state: 'waits' });
  const { phone, server, send, takeIn } = between(mine(day({ photos: [{ photo: 'a', description: '' }] })), null);
  phone.photos = [photo('a'), photo('b')];
  for (let i = 0; i < 3; i += 1) await send();
  expect([server.photos, phone.photos.map((it) => it.state)]).toEqual([1, ['arrived', 'waits']]);
  await takeIn(viewOf(day({ notes: 'without' })));
  expect(phone.photos.map((it) => it.hash)).toEqual(['b']);
});

test('whatever is lost on the way and whoever writes in between, every row of either arrives once', async () => {
  const step = fc.oneof(
    fc.record({ by: fc.constantFrom('phone', 'office') }),
    fc.record({
      by: fc.constant('line'),
      fails: fc.array(fc.constantFrom<Fail[]>('asking', 'answering', 'viewing', null), { maxLength: 3 }),
    }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
      const fails: Fail[] = [];
      const { phone, server, send } = between(mine(EMPTY_DAY), null, fails);
      const entered: string[] = [];
      const withRow = (it: DaySheet) => {
        const name = `row ${entered.length}`;
        entered.push(name);
        return { ...it, visitors: [...it.visitors, { name, description: '' }] };
      };
      for (const it of steps) {
        if (it.by === 'phone') phone.sheet = { ...phone.sheet!, day: withRow(phone.sheet!.day), toSend: true };
        else if (it.by === 'office') server.day = server.day && withRow(server.day);
        else {
          fails.push(...('fails' in it ? it.fails : []));
          await send();
        }
      }
      fails.length = 0;
      phone.sheet = { ...phone.sheet!, toSend: true };
      await send();
      expect(phone.sheet.met).toBeNull();
      const there = server.day!.visitors.map((it) => it.name).sort();
      expect(there).toEqual([...entered].sort());
      expect(stableText(phone.sheet.day)).toBe(stableText(server.day));
    }),
    { numRuns: 60 },
  );
});
