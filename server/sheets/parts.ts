import type { Readable } from 'node:stream';
import { SaxesParser } from 'saxes';
import { fromBufferPromise, type Entry, type ZipFile } from 'yauzl';
import { unreadable } from './limits';

/** Bytes of one part of a workbook, unpacked: a part that says it is small and is not ends here. */
const LARGEST_PART = 100_000_000;
/** Characters of all text that is read of one part. */
const MOST_TEXT = 40_000_000;

/** The parts of a workbook by their path. */
export interface Parts {
  zip: ZipFile;
  entries: ReadonlyMap<string, Entry>;
}

export async function openParts(content: Buffer): Promise<Parts> {
  const zip = await fromBufferPromise(content, { lazyEntries: true });
  const entries = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  return { zip, entries };
}

interface Handlers {
  open?: (name: string, attributes: Readonly<Record<string, string>>) => void;
  /** Text right inside an element. */
  text?: (text: string, inside: string) => void;
  close?: (name: string) => void;
  /** True once nothing more needs to be read. */
  enough?: () => boolean;
}

/** Goes through the XML of a part as a stream; a part that is not there has nothing in it. */
export async function elements({ zip, entries }: Parts, path: string, handlers: Handlers): Promise<void> {
  const entry = entries.get(path);
  if (!entry) return;
  const parser = parserFor(handlers);
  const stream: Readable = await zip.openReadStreamPromise(entry);
  const decoder = new TextDecoder('utf-8');
  let bytes = 0;
  try {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      if (bytes > LARGEST_PART) throw unreadable('it is too large when unpacked');
      parser.write(decoder.decode(chunk, { stream: true }));
      if (handlers.enough?.()) return;
    }
  } finally {
    stream.destroy();
  }
}

function parserFor({ open, text, close }: Handlers): SaxesParser {
  const parser = new SaxesParser();
  const path: string[] = [];
  let read = 0;
  const local = (name: string) => name.slice(name.indexOf(':') + 1);
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ name, attributes }) => {
    path.push(local(name));
    open?.(local(name), attributes as Record<string, string>);
  });
  parser.on('text', (part) => {
    read += part.length;
    if (read > MOST_TEXT) throw unreadable('it has too much text');
    text?.(part, path.at(-1) ?? '');
  });
  parser.on('closetag', ({ name }) => {
    path.pop();
    close?.(local(name));
  });
  return parser;
}
