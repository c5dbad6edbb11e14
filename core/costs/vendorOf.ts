/** A vendor as far as it is named. */
export interface NamedVendor {
  code: string;
  name: string;
}

const plain = (text: string) => text.trim().toLowerCase().replace(/\s+/g, ' ');

/** The code of a vendor that is named by it or by name, whatever letters' case; null where none is, or more than one. */
export function vendorCode(typed: string, vendors: readonly NamedVendor[]): string | null {
  const text = plain(typed);
  if (text === '') return null;
  const byCode = vendors.find((it) => it.code === typed.trim()) ?? vendors.find((it) => plain(it.code) === text);
  if (byCode) return byCode.code;
  const named = vendors.filter((it) => plain(it.name) === text);
  return named.length === 1 ? (named[0]?.code ?? null) : null;
}

/** Cost that somebody is paid for: not labour, of which the party is who worked. */
export const isBought = (costType: string): boolean => costType !== 'labour' && costType !== '';

/** Parties of bought cost that are no vendors yet, each once, in the order they were typed in. */
export function unknownVendors(lines: readonly { costType: string; party: string }[], vendors: readonly NamedVendor[]): string[] {
  const typed = lines.filter((it) => isBought(it.costType)).map((it) => it.party.trim());
  return [...new Set(typed.filter((it) => it !== '' && vendorCode(it, vendors) === null))];
}

/** A code that is free, of the letters of a name: SLATEWRIGHT, then SLATEWRIGHT2. */
export function proposedCode(name: string, vendors: readonly NamedVendor[]): string {
  const [first = ''] = name
    .toUpperCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  const stem = first.slice(0, 12) || 'VENDOR';
  const usedCodes = new Set(vendors.map((it) => it.code.toUpperCase()));
  const free = (count: number): string => {
    const code = count === 1 ? stem : `${stem}${count}`;
    return usedCodes.has(code) ? free(count + 1) : code;
  };
  return free(1);
}
