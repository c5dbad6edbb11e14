import { expect, test } from '@jest/globals';
import { LARGEST_LOGO, safeLogo, svgOf } from './safeLogo';

const svg = (inner: string, more = '') =>
  Buffer.from(`<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg" ${more}>${inner}</svg>`);

/** One clear pixel. */
const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAAC0lEQVR4nGNgAAIAAAUAAXpeqz8AAAAASUVORK5CYII=', 'base64');

test('a PNG and an SVG of shapes are taken', () => {
  expect(safeLogo(png)).toEqual({ url: `data:image/png;base64,${png.toString('base64')}` });
  const made = safeLogo(svg('<path d="M0 0h9v9z" fill="#842"/>'));
  expect('url' in made && svgOf(made.url)).toContain('<path d="M0 0h9v9z"');
});

test.each([
  ['<script>alert(1)</script>', ''],
  ['<rect onload="x()"/>', ''],
  ['<image href="http://elsewhere/x.png"/>', ''],
  ['<style>@import "http://elsewhere/x.css"</style>', ''],
  ['<rect fill="url(http://elsewhere)"/>', ''],
  ['<foreignObject/>', ''],
  ['', ' onload="x()"'],
])('an SVG that can do more than be seen is refused: %s%s', (inner, more) => {
  expect(safeLogo(svg(inner, more))).toMatchObject({ fault: expect.stringMatching(/made of shapes alone/) });
});

test('a PNG that no document could draw is refused', () => {
  const huge = Buffer.from(png);
  huge.writeUInt32BE(4_001, 16);
  const emptied = Buffer.from(png);
  emptied.fill(0, 41, 45);
  for (const bad of [png.subarray(0, 9), png.subarray(0, png.length - 4), huge, emptied])
    expect(safeLogo(bad)).toMatchObject({ fault: expect.stringMatching(/damaged, or longer than 4,000 pixels/) });
});

test('anything else, and what is too large, is refused in words', () => {
  expect(safeLogo(Buffer.from('<html><svg></svg></html>'))).toMatchObject({
    fault: expect.stringMatching(/Expected a PNG or SVG/),
  });
  expect(safeLogo(Buffer.alloc(LARGEST_LOGO + 1))).toMatchObject({ fault: expect.stringMatching(/at most 200 KB/) });
});
