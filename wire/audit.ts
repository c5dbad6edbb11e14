import * as v from 'valibot';
import { ABOUTS } from '../core/audit/abouts';
import { download, query } from './call';
import { plainDate, wholeText } from './fields';

/** One line of who did what. */
export interface AuditRow {
  id: number;
  at: string;
  actor: string;
  command: string;
  /** A job, a document of it (2104/3), a posting, an item. */
  subject: string;
  /** What was said, and what was before, as it was recorded. */
  detail: unknown;
}

export interface AuditPage {
  rows: AuditRow[];
  /** Who stands in the trail at all. */
  people: string[];
  next: number | null;
}

export const auditQuery = v.strictObject({
  /** A job with its documents and postings. */
  job: v.optional(v.string()),
  /** Exactly this subject. */
  subject: v.optional(v.string()),
  about: v.optional(v.picklist(ABOUTS, `expected one of ${ABOUTS.join(', ')}`)),
  actor: v.optional(v.string()),
  from: v.optional(plainDate),
  to: v.optional(plainDate),
  before: v.optional(wholeText(Number.MAX_SAFE_INTEGER)),
});

export const auditCalls = {
  audit: query<AuditPage>('read-books')('/audit', { query: auditQuery }),
  auditCsv: download('read-books')('/audit.csv', { query: auditQuery }),
};
