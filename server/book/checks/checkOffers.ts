import * as v from 'valibot';
import { clientDocument } from '../../../wire/clientDocument';
import { acceptInput } from '../../../wire/quotations';
import type { BookRow } from '../format/bookFiles';
import type { BookCheck } from './checkBook';

/** Checks the documents that went to clients, what was asked about them, and the messages they came with. */
export function checkOffers(check: BookCheck): void {
  check.rows.offers.forEach((row) => checkOffer(check, row));
  check.rows.offer_questions.forEach((row) => checkQuestion(check, row));
  for (const row of check.rows.messages) {
    check.refersToJob('messages', row);
    if (row.file && !/^[\w-]{1,80}\.eml$/.test(row.file))
      check.faults.add('messages', row.row, 'file', `"${row.file.slice(0, 80)}" is no name of a message such as 20310502-1.eml`);
  }
}

function checkOffer(check: BookCheck, row: BookRow<'offers'>): void {
  const at = (column: string, message: string) => check.faults.add('offers', row.row, column, message);
  check.declare('offers', row.row, 'link', check.keys.offers, row.link);
  if (row.link && !/^[\w-]{16,64}$/.test(row.link))
    at('link', 'expected 16 to 64 letters, digits, - and _ that cannot be guessed');
  if (check.refersToJob('offers', row)) {
    if (row.kind === 'quotation')
      check.refers('offers', row.row, 'number', check.keys.quotations, 'quotation', row.job, row.number);
    if (row.kind === 'change')
      check.refers('offers', row.row, 'number', check.keys.changeOrders, 'change order', row.job, row.number);
  }
  if (row.sha256 && !isHash(row.sha256)) at('sha256', 'is no SHA-256 in 64 hexadecimal digits');
  if (row.document && !isDocument(row.document))
    at('document', 'is no document as Ledrin keeps one, JSON with its parts; take it as it was exported');
  if (row.status !== 'open' && row.status !== undefined)
    for (const column of ['answered_at', 'answered_by'] as const)
      if (row[column] === null) at(column, `missing required cell: the document is ${row.status}`);
  if (row.signature && !v.is(acceptInput.entries.signature, row.signature))
    at('signature', 'is no drawn signature: strokes such as M10 12L14 20');
  if (row.status === 'accepted')
    for (const column of ['signature', 'seal'] as const)
      if (row[column] === null) at(column, 'missing required cell: the document is accepted');
}

function checkQuestion(check: BookCheck, row: BookRow<'offer_questions'>): void {
  const file = 'offer_questions';
  check.refers(file, row.row, 'link', check.keys.offers, 'document behind the link', row.link);
  if (row.answer)
    for (const column of ['answered_at', 'answered_by'] as const)
      if (row[column] === null) check.faults.add(file, row.row, column, 'missing required cell: the question is answered');
}

/** A SHA-256 as it is written; nothing else may become the name of a file. */
export function isHash(text: string): boolean {
  return /^[0-9a-f]{64}$/.test(text);
}

function isDocument(text: string): boolean {
  const read = readJson(text);
  return read !== null && v.is(clientDocument, read);
}

/** What a JSON text holds; null where it is none. */
export function readJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}
