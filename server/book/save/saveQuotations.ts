import type { BookCheck } from '../checks/checkBook';
import { joinKey } from '../checks/keys';
import { type Sql } from '../../db/sql';
import type { Actor } from '../../ledger/audit';
import { bulkInsert, saveKeyed, type BookIds } from './saveKeyed';

/** Saves the library of terms and the quotations of a checked book. */
export async function saveQuotations(sql: Sql, actor: Actor, { rows }: BookCheck, ids: BookIds): Promise<void> {
  await bulkInsert(
    sql,
    'terms_text',
    ['name', 'body'],
    rows.terms.map((row) => [row.name, row.body]),
  );
  const quotations = new Map<string, number>();
  await saveKeyed(
    sql,
    'quotation',
    [
      ...[
        'job_id',
        'number',
        'estimate_id',
        'title',
        'presentation',
        'quantities',
        'unit_prices',
        'contact',
        'email',
        'introduction',
      ],
      ...['exclusions', 'terms', 'valid_until', 'status', 'sent_on', 'answered_on', 'answered_by', 'saved_by', 'saved_at'],
    ],
    rows.quotations,
    quotations,
    (row) => joinKey(row.job!, row.quotation!),
    (row) => [
      ids.jobs.get(row.job!),
      row.quotation,
      ids.estimates.get(joinKey(row.job!, row.estimate!)),
      row.title,
      row.presentation ?? 'lump-sum',
      row.quantities ? 1 : 0,
      row.unit_prices ? 1 : 0,
      row.contact ?? '',
      row.email ?? '',
      row.introduction ?? '',
      row.exclusions ?? '',
      row.terms ?? '',
      row.valid_until ?? null,
      row.status ?? 'draft',
      row.sent_on ?? null,
      row.answered_on ?? null,
      row.answered_by ?? '',
      actor.name,
      actor.at,
    ],
  );
  const of = (row: { job?: string | null; quotation?: number | null }) => quotations.get(joinKey(row.job!, row.quotation!));
  await bulkInsert(
    sql,
    'quotation_alternate',
    ['quotation_id', 'name', 'amount'],
    rows.quotation_alternates.map((row) => [of(row), row.name, row.amount]),
  );
  await bulkInsert(
    sql,
    'quotation_payment',
    ['quotation_id', 'name', 'rate', 'amount', 'due_on', 'stage'],
    rows.quotation_payments.map((row) => [
      of(row),
      row.name,
      row.percent ?? null,
      row.amount ?? null,
      row.due_on ?? null,
      row.stage ?? '',
    ]),
  );
}
