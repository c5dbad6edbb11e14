/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, renderHook } from '@testing-library/react';
import { ROW_KEY, type GridRow } from '../grid/gridTypes';
import { anyUnsaved } from '../unsaved';
import { ownDrafts, readDraft, writeDraft } from './storedDraft';
import { useDraftRows } from './useDraftRows';

beforeEach(() => {
  localStorage.clear();
  ownDrafts('Ann Ash');
});
afterEach(cleanup);

const row = (key: string, amount: string): GridRow => ({ [ROW_KEY]: key, amount });
const START = [row('1', '100'), row('2', '200')];
const open = (seen = 'a', start: readonly GridRow[] = START) =>
  renderHook((it: { seen: string; start: readonly GridRow[] }) => useDraftRows({ name: 'sheet 8', ...it }), {
    initialProps: { seen, start },
  });
const amounts = (rows: readonly GridRow[]) => rows.map((it) => it.amount);
/** What another window does to the same draft: it writes it, and this one is told. */
const elsewhere = (rows: readonly GridRow[] | null) => {
  const before = localStorage.getItem('ledrin.draft/Ann Ash/sheet 8');
  writeDraft('sheet 8', rows && { seen: 'a', base: START, rows });
  const now = localStorage.getItem('ledrin.draft/Ann Ash/sheet 8');
  act(
    () =>
      void window.dispatchEvent(
        new StorageEvent('storage', { key: 'ledrin.draft/Ann Ash/sheet 8', oldValue: before, newValue: now }),
      ),
  );
};

test('what is typed is there again after a reload, for whoever typed it and for nobody else; sent, it is gone', () => {
  const first = open();
  act(() => first.result.current.setRows([row('1', '100'), row('2', '250'), { amount: '7' }]));
  first.unmount();
  const second = open();
  expect(amounts(second.result.current.rows)).toEqual(['100', '250', '7']);
  second.unmount();
  ownDrafts('Ben Birch');
  expect(amounts(open().result.current.rows)).toEqual(['100', '200']);
  cleanup();
  ownDrafts('Ann Ash');
  const third = open();
  act(() => third.result.current.forget());
  third.unmount();
  expect(readDraft('sheet 8')).toBeNull();
});

test('a newer version moves and drops nothing that was typed, opened or reloaded', () => {
  const { result, rerender, unmount } = open();
  act(() => result.current.setRows([row('1', '100'), row('2', '1,600.00')]));
  // A line comes in between, and the first is approved meanwhile.
  const newer = [row('X', '5'), row('2', '200')];
  rerender({ seen: 'b', start: newer });
  expect([amounts(result.current.rows), result.current.notice]).toEqual([['5', '1,600.00'], 'merged']);
  unmount();
  expect(amounts(open('c', [row('X', '5'), row('Y', '6'), row('2', '200')]).result.current.rows)).toEqual(['5', '6', '1,600.00']);
});

test('two windows type one draft: the lines of both stand, and what one has sent the other does not offer again', () => {
  const { result } = open('a', []);
  act(() => result.current.setRows([row('m', '1')]));
  elsewhere([row('t', '2')]);
  expect(amounts(result.current.rows).sort()).toEqual(['1', '2']);
  elsewhere([row('m', '1'), row('t', '2')]);
  elsewhere(null);
  expect([amounts(result.current.rows), result.current.notice]).toEqual([[], 'sent-elsewhere']);
});

test('what the other window has not seen stays where it sends its own', () => {
  const { result } = open('a', []);
  elsewhere([row('t', '2')]);
  act(() => result.current.setRows([row('t', '2'), row('m', '1')]));
  elsewhere(null);
  expect(amounts(result.current.rows)).toEqual(['1']);
});

test('what the browser has no room for is said, and whoever leaves is asked; once it is sent, neither', () => {
  const { result } = open();
  const setItem = Storage.prototype.setItem;
  Storage.prototype.setItem = () => {
    throw new DOMException('full', 'QuotaExceededError');
  };
  try {
    act(() => result.current.setRows([row('1', '999'), row('2', '200')]));
    act(() => void window.dispatchEvent(new Event('pagehide')));
    expect([result.current.notice, anyUnsaved(), amounts(result.current.rows)]).toEqual(['unstored', true, ['999', '200']]);
  } finally {
    Storage.prototype.setItem = setItem;
  }
  act(() => result.current.forget());
  expect([result.current.notice, anyUnsaved()]).toEqual([null, false]);
});
