import { expect, test } from '@jest/globals';
import type { GridColumn } from './gridTypes';
import { pastedOver } from './pasteBlock';

const column = (key: string, more: Partial<GridColumn> = {}): GridColumn => ({ key, title: key, width: 60, ...more });
const ALL = [column('day'), column('item', { isHelp: true }), column('job'), column('left', { show: () => '' }), column('note')];
const over = (hidden: string[], from: string, text: string) => {
  const shown = ALL.filter((it) => !hidden.includes(it.key));
  return pastedOver(
    shown,
    ALL,
    shown.findIndex((it) => it.key === from),
    text,
  );
};

test('a block fills what is shown; a wider one the hidden columns too, but none that only helps to type', () => {
  expect(over(['item'], 'day', '1\t2\t3')).toEqual(['day', 'job', 'note']);
  expect(over(['item', 'note'], 'day', '1\t2\t3')).toEqual(['day', 'job', 'note']);
  // Shown, it is filled as any other; so it is where the block begins in it.
  expect(over([], 'day', '1\t2\t3\t4')).toEqual(['day', 'item', 'job', 'note']);
  expect(over(['note'], 'item', '1\t2\t3')).toEqual(['item', 'job', 'note']);
});
