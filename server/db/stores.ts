/** Folders beside the database: what is too large for it, or written for other programs. */
export interface Stores {
  /** Attachments, each under its SHA-256. */
  files: string;
  /** Messages that went out. */
  outbox: string;
}
