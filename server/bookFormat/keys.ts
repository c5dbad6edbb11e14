/** A row the database has, by the names of the format. */
export type There = Readonly<Record<string, string | number | null>> & { readonly id: number };

/** The keys of one kind that a book may refer to: those the database has and those the book declares. */
export class Keys {
  private readonly declared = new Set<string>();
  /** Set where the book's own list cannot be read in full: then no reference is called unknown. */
  incomplete = false;

  constructor(readonly existing: ReadonlyMap<string, There>) {}

  /** Declares a key; false where it is already there. */
  declare(key: string): boolean {
    if (this.declared.has(key) || this.existing.has(key)) return false;
    this.declared.add(key);
    return true;
  }

  get isEmpty(): boolean {
    return this.declared.size === 0 && this.existing.size === 0;
  }

  has(key: string): boolean {
    return this.incomplete || this.declared.has(key) || this.existing.has(key);
  }
}

const SEPARATOR = '\u001f';

/** A key of several columns as one text. */
export function joinKey(...parts: readonly (string | number)[]): string {
  // Most keys have one column, and a million rows ask for them.
  return parts.length === 1 ? String(parts[0]) : parts.join(SEPARATOR);
}
