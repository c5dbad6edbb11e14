import { expect, test } from '@jest/globals';
import type { Connection } from './connection';
import { ReaderPool } from './readerPool';

const pool = () => new ReaderPool(() => ({ close: () => Promise.resolve() }) as unknown as Connection, 4, 1);

/** Work that goes on until it is told to end; `began`: in which order the pieces began. */
function works() {
  const began: string[] = [];
  const ends = new Map<string, () => void>();
  const work = (name: string) => () =>
    new Promise<string>((done) => {
      began.push(name);
      ends.set(name, () => done(name));
    });
  const end = async (name: string) => {
    ends.get(name)!();
    await new Promise((done) => setTimeout(done));
  };
  return { began, work, end };
}

test('one person has two of four at a time, however many they ask for; another and the door are served meanwhile', async () => {
  const readers = pool();
  const { began, work, end } = works();
  const all = ['a1', 'a2', 'a3', 'a4'].map((name) => readers.use(work(name), 'Ann'));
  all.push(readers.use(work('b1'), 'Bob'), readers.use(work('b2'), 'Bob'), readers.use(work('door')));
  await new Promise((done) => setTimeout(done));
  expect(began).toEqual(['a1', 'a2', 'b1', 'door']);
  // What the door leaves no person takes: one is always free for it. Ann's next is in turn before Bob's.
  await end('door');
  expect(began).toHaveLength(4);
  await end('a1');
  expect(began.at(-1)).toBe('a3');
  await end('b1');
  expect(began.at(-1)).toBe('b2');
  for (const name of ['a2', 'a3', 'b2', 'a4']) await end(name);
  expect(await Promise.all(all)).toEqual(['a1', 'a2', 'a3', 'a4', 'b1', 'b2', 'door']);
});

test('what fails gives its connection back', async () => {
  const readers = pool();
  const fail = () => Promise.reject(new Error('no'));
  for (let i = 0; i < 9; i++) await expect(readers.use(fail, 'Ann')).rejects.toThrow('no');
  expect(await readers.use(() => Promise.resolve('yes'), 'Ann')).toBe('yes');
});
