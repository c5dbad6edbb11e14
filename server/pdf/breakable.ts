import type { Content } from 'pdfmake';

/** Letters in a row without a place to break the line; a longer word takes the typesetter minutes. */
const LONGEST_WORD = 40;
/** A place where a line may break, which is not seen. */
const BREAK = '\u200b';
const LONG = new RegExp(`\\S{${LONGEST_WORD}}(?=\\S)`, 'gu');

/** A text whose lines can be broken, however long its words. */
export function breakableText(text: string): string {
  return text.replace(LONG, (part) => part + BREAK);
}

/** What is printed, with every text in it breakable. */
export function breakable<Part extends Content>(part: Part): Part {
  if (typeof part === 'string') return breakableText(part) as Part;
  if (Array.isArray(part)) return part.map((it: Content) => breakable(it)) as unknown as Part;
  if (typeof part !== 'object' || part === null) return part;
  const made = { ...part } as Record<string, unknown>;
  for (const key of ['text', 'stack', 'columns', 'ul', 'ol']) if (key in made) made[key] = breakable(made[key] as Content);
  const { table } = made as { table?: { body: Content[][] } };
  if (table) made.table = { ...table, body: table.body.map((row) => row.map((it) => breakable(it))) };
  return made as unknown as Part;
}
