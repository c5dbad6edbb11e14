import { summaryOf } from '../../core/billing/summaryFigures';
import { lineFaults, movableApplication, savedApplication, setSubmitted } from './applications';
import { dueDay } from '../../core/billing/invoice';
import { nextInvoiceNumber, saveInvoice } from './invoices';
import { known, present } from '../../core/errors/known';
import { ApplicationLineTable, ApplicationTable } from './models';
import { certifiedOnRefusals } from '../../core/billing/applicationRefusals';
import { certificationRefusal } from '../../core/billing/invoiceRefusals';
import { assertAllowed, assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import { valueApplication, type Application, type BilledLine } from '../../core/billing/application';
import { journalView } from '../../core/ledger/journalView';
import type { Reader } from '../db/sql';
import type { BillInput, BillPreview, CertificationPreview, CertifyInput } from '../../wire/billing';
import { planCertification } from '../../core/billing/certification';
import { savePosting } from '../ledger/savePosting';
import { assertVersion } from '../versions/staleness';

/** A certification worked out, with everything it rests on checked; `bill`: of a draft, of a client who never certifies. */
async function planOf(sql: Reader, move: 'certify' | 'bill', jobNumber: string, number: number, input: CertifyInput) {
  const { job, digits, application: found } = await movableApplication(sql, move, jobNumber, number);
  const { id, ...application } = found;
  const previous = job.applications.find((it) => it.number === number - 1);
  assertAllowed(certifiedOnRefusals({ ...application, status: 'certified', certifiedOn: input.on }, previous), {
    fields: { certifiedOn: 'on', status: 'on' },
  });
  const lines = certifiedLines(application.lines, input);
  const faults = lineFaults(job, application.dated, lines, digits, 'lines', application.above);
  assertNoFaults(faults.map((it) => ({ ...it, field: fieldOfCertified(it.field, lines, input) })));
  const certified: Application = { ...application, lines, status: 'certified', certifiedOn: input.on };
  assertAllowed([certificationRefusal(job, certified)], { digits, code: 'refused' });
  return { id, job, application, lines, certified, ...planCertification(job, certified) };
}

/** What certifying would post, and what the application would then come to. */
export async function previewCertification(
  sql: Reader,
  jobNumber: string,
  number: number,
  input: CertifyInput,
): Promise<CertificationPreview> {
  const { job, certified, journal } = await planOf(sql, 'certify', jobNumber, number, input);
  return { summary: summaryOf(valueApplication(job, certified, input.on)), journal: journalView(journal) };
}

/** What billing a draft in one act would post. */
export async function previewBill(sql: Reader, jobNumber: string, number: number, { on }: BillInput): Promise<BillPreview> {
  const { job, id, certified, journal } = await planOf(sql, 'bill', jobNumber, number, { version: null, on, lines: [] });
  const saved = present(await sql.findOne(ApplicationTable, { id }));
  return {
    summary: summaryOf(valueApplication(job, certified, on)),
    journal: journalView(journal),
    invoice: saved.invoice_number ?? (await nextInvoiceNumber(sql)),
    dueOn: dueDay(on, job.termsDays),
  };
}

/** Bills a draft in one act, of a client who never certifies: applied for, certified as applied for, numbered and posted. */
export async function billApplication(command: Command, jobNumber: string, number: number, input: BillInput): Promise<number> {
  await movableApplication(command.sql, 'bill', jobNumber, number);
  await setSubmitted(command, jobNumber, number, true);
  return certifyApplication(command, jobNumber, number, { ...input, lines: [] });
}

/** Certifies a submitted application, as applied for or for other figures line by line, and posts it. */
export async function certifyApplication(
  command: Command,
  jobNumber: string,
  number: number,
  input: CertifyInput,
): Promise<number> {
  const { sql, actor } = command;
  const { id, job, application, lines, figures, journal } = await planOf(sql, 'certify', jobNumber, number, input);
  assertVersion(
    command,
    `application ${number}`,
    input.version === null ? null : await savedApplication(sql, id),
    input.version ?? 0,
  );
  const saved = present(await sql.findOne(ApplicationTable, { id }));
  const invoiceNumber = saved.invoice_number ?? (await nextInvoiceNumber(sql));
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'application', jobId: job.id, reference: String(number), postedOn: input.on, dated: application.dated },
    [journal],
  );
  await sql.save(
    ApplicationLineTable,
    lines
      .filter((it) => it.certifiedWork !== null || it.certifiedMaterials !== null)
      .map(({ line, work, materials, certifiedWork, certifiedMaterials }) => ({
        application_id: id,
        sov_line_id: known(job.sovLineIds, line),
        work,
        materials,
        certified_work: certifiedWork,
        certified_materials: certifiedMaterials,
      })),
    ['application_id', 'sov_line_id'],
  );
  await sql.update(
    ApplicationTable,
    { id },
    {
      status: 'certified',
      certified_on: input.on,
      posting_id: postingId,
      invoice_number: invoiceNumber,
      gross: figures.gross,
      retention: figures.retention,
      due: figures.due,
      tax: figures.tax,
    },
  );
  await saveInvoice(
    sql,
    job.id,
    postingId,
    {
      kind: 'application',
      reference: String(number),
      dated: application.dated,
      postedOn: input.on,
      dueOn: dueDay(input.on, job.termsDays),
      payable: figures.due + figures.tax,
    },
    invoiceNumber,
  );
  command.note(`${jobNumber}/${number}`, input);
  return postingId;
}

/** Only figures that differ from what was applied for are listed separately. */
function certifiedLines(applied: readonly BilledLine[], { lines }: CertifyInput): BilledLine[] {
  const changed = new Map(lines.map((it) => [it.line, it]));
  const all = applied.map((line) => {
    const other = changed.get(line.line);
    changed.delete(line.line);
    return other
      ? {
          ...line,
          certifiedWork: other.work === line.work ? null : other.work,
          certifiedMaterials: other.materials === line.materials ? null : other.materials,
        }
      : line;
  });
  return [
    ...all,
    ...[...changed.values()].map((it) => ({
      line: it.line,
      work: 0,
      materials: 0,
      certifiedWork: it.work,
      certifiedMaterials: it.materials,
    })),
  ];
}

function fieldOfCertified(field: string, lines: readonly BilledLine[], input: CertifyInput): string {
  const [, index, figure] = field.split('.');
  const at = input.lines.findIndex((it) => it.line === present(lines[Number(index)]).line);
  return at < 0 ? field : `lines.${at}.${figure}`;
}
