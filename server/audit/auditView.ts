import type * as v from 'valibot';
import { commandsAbout } from '../../core/audit/actions';
import type { AuditPage, auditQuery } from '../../wire/audit';
import type { Reader } from '../db/sql';
import { AUDITED_PEOPLE, AUDIT_CONDITIONS, newestAudits } from './queries';

const PAGE = 100;

/** The audit trail, newest first, a page at a time: who did what, when, with what was said and what was before. */
export async function auditPage(sql: Reader, { about, ...asked }: v.InferOutput<typeof auditQuery>): Promise<AuditPage> {
  const filter = { ...asked, commands: about === undefined ? undefined : JSON.stringify(commandsAbout(about)) };
  const bind: unknown[] = [];
  const where = Object.entries(AUDIT_CONDITIONS).flatMap(([key, condition]) => {
    const value = filter[key as keyof typeof filter];
    return value === undefined ? [] : [condition.replaceAll('?', `$${bind.push(value)}`)];
  });
  const [rows, people] = [await sql.all(newestAudits(['true', ...where], PAGE + 1), bind), await sql.all(AUDITED_PEOPLE)];
  const page = rows.slice(0, PAGE);
  return {
    rows: page.map((row) => ({ ...row, detail: JSON.parse(row.detail) as unknown })),
    people: people.map((it) => it.actor),
    next: rows.length > PAGE ? (page.at(-1)?.id ?? null) : null,
  };
}
