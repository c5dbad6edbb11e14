import { expect, test } from '@jest/globals';
import { breakable, breakableText } from './breakable';
import { makePdf } from './pdf';

test('a long word gets places to break at; what is short stays as it is, and nothing else of a part changes', () => {
  expect(breakableText('Reihenmittelpfette 45 × 120')).toBe('Reihenmittelpfette 45 × 120');
  expect(
    breakableText('x'.repeat(100))
      .split('\u200b')
      .map((it) => it.length),
  ).toEqual([40, 40, 20]);
  const part = { stack: ['a', { text: 'y'.repeat(50), bold: true }], margin: [1, 2, 3, 4] as [number, number, number, number] };
  expect(breakable(part)).toEqual({
    stack: ['a', { text: `${'y'.repeat(40)}\u200b${'y'.repeat(10)}`, bold: true }],
    margin: [1, 2, 3, 4],
  });
});

test('a text of 19,000 letters without a space is printed', async () => {
  const pdf = await makePdf({
    title: 'x',
    landscape: false,
    foot: '',
    content: [{ table: { body: [[{ text: 'W'.repeat(19_000) }]] } }],
  });
  expect(pdf.subarray(0, 4).toString()).toBe('%PDF');
}, 20_000);
