import { expect, test } from '@jest/globals';
import { RequestIds } from './requestIds';

const post = (amount: number) => ({ call: 'postCosts', method: 'POST', url: '/costs', params: {}, body: { amount } });
const ids = () => {
  let last = 0;
  return new RequestIds(() => `id-${++last}`);
};

test('the same command twice at once goes out under one id, another content or a later one under its own', () => {
  const it = ids();
  expect([it.idOf(post(1)), it.idOf(post(1)), it.idOf(post(2))]).toEqual(['id-1', 'id-1', 'id-2']);
  for (const amount of [1, 1, 2]) it.ended(post(amount), true);
  expect(it.idOf(post(1))).toBe('id-3');
});

test('what was sent and not answered is asked for again under its own id, until an answer is there', () => {
  const it = ids();
  const first = it.idOf(post(1));
  it.ended(post(1), false);
  expect(it.idOf(post(2))).toBe(first);
  it.ended(post(2), true);
  expect(it.idOf(post(2))).toBe('id-2');
});
