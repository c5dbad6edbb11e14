import { inflateSync } from 'node:zlib';

const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Longer sides than any logo needs; what is drawn stays small in memory. */
const LONGEST_SIDE = 4_000;

export function startsAsPng(bytes: Uint8Array): boolean {
  return SIGNATURE.equals(bytes.subarray(0, SIGNATURE.length));
}

/** Width and height of a PNG in pixels; null where it is not whole, so that no document fails by it later. */
export function sizeOfPng(bytes: Uint8Array): { width: number; height: number } | null {
  const png = Buffer.from(bytes);
  const pictures: Buffer[] = [];
  let size: { width: number; height: number } | null = null;
  for (let at = SIGNATURE.length; at + 12 <= png.length;) {
    const length = png.readUInt32BE(at);
    const type = png.toString('latin1', at + 4, at + 8);
    if (at + 12 + length > png.length) return null;
    if (type === 'IHDR' && length >= 8) size = { width: png.readUInt32BE(at + 8), height: png.readUInt32BE(at + 12) };
    if (type === 'IDAT') pictures.push(png.subarray(at + 8, at + 8 + length));
    if (type === 'IEND') return size !== null && drawable(size, pictures) ? size : null;
    at += 12 + length;
  }
  return null;
}

function drawable({ width, height }: { width: number; height: number }, pictures: readonly Buffer[]): boolean {
  if (width < 1 || height < 1 || width > LONGEST_SIDE || height > LONGEST_SIDE) return false;
  try {
    // Every row has at least a byte of its own, and a pixel at most eight.
    return inflateSync(Buffer.concat(pictures), { maxOutputLength: height * (width * 8 + 16) }).length >= height;
  } catch {
    return false;
  }
}
