import type * as v from 'valibot';
import { actionOf, commandsAbout } from '../../core/audit/actions';
import type { AuditPage, auditQuery } from '../../wire/audit';
import type { Reader } from '../db/sql';
import { csvFile, type SentFile } from '../reportFiles/csvFile';
import { harmless } from '../reportFiles/reportCsv';
import { AUDITED_PEOPLE, AUDIT_CONDITIONS, newestAudits } from './queries';

const PAGE = 100;

type Filter = v.InferOutput<typeof auditQuery>;

/** The audit trail, newest first, a page at a time: who did what, when, with what was said and what was before. */
export async function auditPage(sql: Reader, filter: Filter): Promise<AuditPage> {
  const { rows, next } = await pageOf(sql, filter, PAGE);
  return { rows, next, people: (await sql.all(AUDITED_PEOPLE)).map((it) => it.actor) };
}

async function pageOf(sql: Reader, { about, ...asked }: Filter, size: number): Promise<Pick<AuditPage, 'rows' | 'next'>> {
  const filter = { ...asked, commands: about === undefined ? undefined : JSON.stringify(commandsAbout(about)) };
  const bind: unknown[] = [];
  const where = Object.entries(AUDIT_CONDITIONS).flatMap(([key, condition]) => {
    const value = filter[key as keyof typeof filter];
    return value === undefined ? [] : [condition.replaceAll('?', `$${bind.push(value)}`)];
  });
  const rows = await sql.all(newestAudits(['true', ...where], size + 1), bind);
  const page = rows.slice(0, size);
  return {
    rows: page.map((row) => ({ ...row, detail: JSON.parse(row.detail) as unknown })),
    next: rows.length > size ? (page.at(-1)?.id ?? null) : null,
  };
}

const HEADER = ['at', 'actor', 'action', 'command', 'subject', 'detail'];

/** The same as a file, all of it that matches: who did what, to what, and what was said and was before as JSON. */
export function auditCsv(sql: Reader, filter: Filter): Promise<SentFile> {
  const pages = async function* () {
    for (let before = filter.before; ;) {
      const { rows, next } = await pageOf(sql, { ...filter, before }, 1000);
      yield rows.map((it) => [
        ...[
          it.at,
          harmless(it.actor),
          actionOf(it.command),
          it.command,
          harmless(it.subject),
          harmless(JSON.stringify(it.detail)),
        ],
      ]);
      if (next === null) return;
      before = next;
    }
  };
  return csvFile('audit-trail.csv', HEADER, pages());
}
