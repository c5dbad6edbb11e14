import { sizeOfPng, startsAsPng } from './png';

/** The largest logo, in bytes. */
export const LARGEST_LOGO = 200_000;

/** What in an SVG can act, or ask for something from elsewhere. A logo needs none of it. */
const ACTS =
  /<\s*(script|foreignObject|iframe|image|use|animate|set|style|a)\b|<!(DOCTYPE|ENTITY)|\son\w+\s*=|href\s*=|url\s*\(|javascript:|@import/i;

/**
 * A logo as a data URL, from the bytes of a PNG or of an SVG of shapes alone. In words why not, where it is something else, or an SVG
 * that can do more than be seen.
 */
export function safeLogo(bytes: Uint8Array): { url: string } | { fault: string } {
  if (bytes.length > LARGEST_LOGO)
    return { fault: `A logo has at most ${LARGEST_LOGO / 1000} KB; this one has ${Math.ceil(bytes.length / 1000)}` };
  if (startsAsPng(bytes))
    return sizeOfPng(bytes)
      ? { url: `data:image/png;base64,${Buffer.from(bytes).toString('base64')}` }
      : { fault: 'This PNG is damaged, or longer than 4,000 pixels on a side; save it again, smaller' };
  const text = Buffer.from(bytes)
    .toString('utf8')
    .replace(/^\uFEFF/, '')
    .trim();
  const svg = text
    .replace(/^<\?xml[^>]*\?>\s*/, '')
    .replace(/<!--[\s\S]*?-->/g, '')
    .trim();
  if (!/^<svg[\s>]/i.test(svg)) return { fault: 'Expected a PNG or SVG file as the logo' };
  const found = ACTS.exec(svg);
  if (found)
    return { fault: `This SVG has "${found[0].trim()}"; a logo is made of shapes alone. Export it as a plain SVG, or as PNG` };
  return { url: `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}` };
}

/** The SVG text of a logo; null where it is a PNG. */
export function svgOf(url: string): string | null {
  const svg = /^data:image\/svg\+xml;base64,(.*)$/.exec(url)?.[1];
  return svg === undefined ? null : Buffer.from(svg, 'base64').toString('utf8');
}
