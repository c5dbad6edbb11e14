import { oppositeOf } from '../../core/ledger/journal';
import { displayExact } from '../../core/money/display';
import { requireApproval } from '../approvals/requireApproval';
import { present } from '../../core/errors/known';
import type { Command } from '../acts/command';
import { postingJournals } from '../ledger/postingViews';
import { savePosting } from '../ledger/savePosting';
import { movableApplication } from './applications';
import { ApplicationLineTable, ApplicationTable, InvoiceTable, ReceiptTable } from './models';

/**
 * Reverses the certification of the last certified application, on its own date: its journal is reversed, its invoice is cancelled, and
 * it is submitted again, as it was applied for. Receipts that were reversed stay with the invoice, which asks for nothing.
 */
export async function reverseCertification(command: Command, jobNumber: string, number: number, reason: string): Promise<number> {
  const { sql, actor } = command;
  const { job, application, digits } = await movableApplication(sql, 'uncertify', jobNumber, number);
  const saved = present(await sql.findOne(ApplicationTable, { id: application.id }));
  const [posting, on] = [present(saved.posting_id), present(saved.certified_on)];
  await requireApproval(command, {
    kind: 'uncertify',
    jobId: job.id,
    document: String(number),
    amount: saved.gross ?? 0,
    content: { posting, reason },
    facts: [
      ['Application', String(number)],
      ['Certified on', on],
      ['Gross amount', displayExact(saved.gross ?? 0, digits)],
    ],
  });
  const journals = await postingJournals(sql, posting);
  const postingId = await savePosting(
    sql,
    actor,
    {
      kind: 'reversal',
      jobId: job.id,
      reference: String(number),
      postedOn: on,
      dated: saved.dated,
      note: reason,
      reversesId: posting,
    },
    journals.map(oppositeOf),
  );
  const invoice = present(await sql.findOne(InvoiceTable, { posting_id: posting }));
  if (await sql.findOne(ReceiptTable, { invoice_id: invoice.id }))
    await sql.update(InvoiceTable, { id: invoice.id }, { payable: 0 });
  else await sql.remove(InvoiceTable, { id: invoice.id });
  await sql.update(
    ApplicationTable,
    { id: application.id },
    {
      status: 'submitted',
      certified_on: null,
      posting_id: null,
      gross: null,
      retention: null,
      due: null,
      tax: null,
      version: saved.version + 1,
      saved_by: actor.name,
      saved_at: actor.at,
    },
  );
  await sql.update(ApplicationLineTable, { application_id: application.id }, { certified_work: null, certified_materials: null });
  command.note(`${jobNumber}/${number}`, { reason, certifiedOn: on, by: postingId });
  return postingId;
}
