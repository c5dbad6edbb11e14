import type { GridRow } from '../grid/gridTypes';

/** Rows typed and not sent, as this browser keeps them. */
export interface StoredDraft {
  /** The version of the document they were typed over; empty for a new one. */
  seen: string;
  /** The rows of that version. */
  base: readonly GridRow[];
  rows: readonly GridRow[];
}

const KEPT = 'ledrin.draft/';
/** Whose drafts are read and written: on a shared browser nobody finds another's. */
let owner = '';

/** Drafts from now on are of this person. */
export function ownDrafts(person: string): void {
  owner = person;
}

const keyOf = (name: string) => `${KEPT}${owner}/${name}`;

function parsed(text: string | null): StoredDraft | null {
  try {
    const draft = JSON.parse(text ?? 'null') as StoredDraft | null;
    return draft && Array.isArray(draft.rows) && Array.isArray(draft.base) ? draft : null;
  } catch {
    return null;
  }
}

/** What was typed in a document and not sent, by its name; null where there is none. */
export function readDraft(name: string): StoredDraft | null {
  return parsed(localStorage.getItem(keyOf(name)));
}

/** Stores what is typed until it is sent; null: it was sent, or there is nothing. False where the browser has no room for it. */
export function writeDraft(name: string, draft: StoredDraft | null): boolean {
  try {
    if (draft === null) localStorage.removeItem(keyOf(name));
    else localStorage.setItem(keyOf(name), JSON.stringify(draft));
    return true;
  } catch (error) {
    if (error instanceof DOMException) return false;
    throw error;
  }
}

/** Tells of what another window of this browser wrote of a draft. Gives back how to stop. */
export function watchDraft(name: string, told: (draft: StoredDraft | null) => void): () => void {
  const key = keyOf(name);
  const listen = (event: StorageEvent) => {
    if (event.key === key) told(parsed(event.newValue));
  };
  window.addEventListener('storage', listen);
  return () => window.removeEventListener('storage', listen);
}
