import { inflateRawSync } from 'node:zlib';

/** Files of a ZIP archive that is small and written in one go: enough to look into a workbook. */
export function unzipped(archive: Buffer): Record<string, string> {
  const files: Record<string, string> = {};
  const end = archive.lastIndexOf(Buffer.from('PK\x05\x06', 'latin1'));
  let at = archive.readUInt32LE(end + 16);
  for (let n = archive.readUInt16LE(end + 10); n > 0; n--) {
    const [method, size, nameLength, extra, comment, local] = [
      archive.readUInt16LE(at + 10),
      archive.readUInt32LE(at + 20),
      archive.readUInt16LE(at + 28),
      archive.readUInt16LE(at + 30),
      archive.readUInt16LE(at + 32),
      archive.readUInt32LE(at + 42),
    ];
    const start = local + 30 + archive.readUInt16LE(local + 26) + archive.readUInt16LE(local + 28);
    const data = archive.subarray(start, start + size);
    files[archive.subarray(at + 46, at + 46 + nameLength).toString()] = (method === 8 ? inflateRawSync(data) : data).toString();
    at += 46 + nameLength + extra + comment;
  }
  return files;
}
