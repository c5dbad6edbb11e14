import { APPROVED_CHANGES, INVOICE_NUMBER, PARTIES } from './queries';
import { type RowOf } from '../db/fields';
import { LAST_DAY, type PlainDate } from '../../core/calendar/plainDate';
import type { Content, TableCell } from 'pdfmake';
import { valueApplication, type Application, type ValuedApplication } from '../../core/billing/application';
import { summaryFigure, type SummaryFigure } from '../../core/billing/summaryFigures';
import { describeRetention } from '../../core/billing/describeRetention';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import { displayCents, displayExact, displayPercent } from '../../core/money/display';
import { formatPercentShortest, ratio } from '../../core/money/rate';
import type { Reader } from '../db/sql';
import { loadBillingJobs, type LoadedBillingJob } from './billingJobs';
import { type Company, companyLogo, loadCompany } from '../company/company';
import { jobByNumber } from '../jobs/jobByNumber';
import { companyLetterhead, labelled } from '../pdf/letterhead';
import { payment } from '../pdf/payment';
import { ledgerLayout, makePdf } from '../pdf/pdf';
import { QUIET } from '../pdf/typefaces';

type Parties = RowOf<typeof PARTIES>;

/** All that an application's document is made from. */
export interface ApplicationDocument {
  company: Company;
  job: Pick<LoadedBillingJob, 'number' | 'name' | 'taxRate' | 'retention'>;
  application: Pick<Application, 'number' | 'status' | 'dated' | 'certifiedOn' | 'reference'>;
  parties: Parties;
  valued: ValuedApplication;
  logo: string;
  /** Once it is certified: its number as an invoice, and when it is due. */
  invoice: { number: number; dueOn: PlainDate } | null;
  /** Change orders in the contract of its date. */
  changes: readonly { number: string; title: string; decidedOn: PlainDate; amount: number }[];
  /** Lines by section, each with its sum. */
  bySection: boolean;
}

/** Reads what an application's document is made from. Throws not-found. */
export async function applicationDocument(
  sql: Reader,
  jobNumber: string,
  number: number,
  bySection: boolean,
): Promise<ApplicationDocument> {
  const { id } = await jobByNumber(sql, jobNumber, 'contract');
  const job = (await loadBillingJobs(sql, id)).get(jobNumber);
  const application = job?.applications.find((it) => it.number === number);
  if (!job || !application) throw new LedrinError('not-found', `Job ${jobNumber} has no application ${number}`);
  const [parties] = await sql.all(PARTIES, [id]);
  if (!parties) throw new LedrinError('not-found', `Job ${jobNumber} has no client`);
  const { name, taxRate, retention } = job;
  const { status, dated, certifiedOn, reference } = application;
  return {
    company: await loadCompany(sql),
    job: { number: jobNumber, name, taxRate, retention },
    application: { number, status, dated, certifiedOn, reference },
    parties,
    valued: valueApplication(job, application, LAST_DAY),
    logo: await companyLogo(sql),
    invoice: (await sql.get(INVOICE_NUMBER, [id, String(number)])) ?? null,
    changes: await sql.all(APPROVED_CHANGES, [id, dated]),
    bySection,
  };
}

/** An application for payment as a document: what is asked for first, how it comes about line by line after. */
export function applicationPdf(document: ApplicationDocument): Promise<Buffer> {
  const { company, job, application, valued, invoice, changes } = document;
  const state =
    application.status === 'certified'
      ? `Certified ${displayDate(application.certifiedOn)}`
      : application.status === 'draft'
        ? 'Draft, not yet submitted'
        : 'Submitted';
  const title = `Application for payment ${application.number}`;
  return makePdf({
    title: `${title}, job ${job.number}`,
    landscape: false,
    foot: `${company.name} · Job ${job.number} · ${title}`,
    content: [
      heading(
        title,
        document,
        `${state}. Work to ${displayDate(application.dated)}${application.reference ? `, reference ${application.reference}` : ''}.`,
      ),
      ...summary(valued, company, job),
      ...(invoice ? [payment(company, valued.payable, invoice)] : []),
      signatures(company.name, document.parties.client_name),
      { text: 'Schedule of values', font: 'Serif', fontSize: 14, pageBreak: 'before', margin: [0, 0, 0, 2] },
      { text: `Job ${job.number} ${job.name}. All figures to date, in ${company.currency}.`, margin: [0, 0, 0, 8] },
      lineTable(valued, company, document.bySection),
      ...(changes.length > 0 ? changeTable(changes, company) : []),
    ],
  });
}

function heading(title: string, { company, logo, job, parties, invoice }: ApplicationDocument, state: string): Content {
  return {
    stack: [
      companyLetterhead(company, logo),
      { text: title, font: 'Serif', fontSize: 22 },
      { text: state, margin: [0, 2, 0, 16] },
      {
        columns: [
          labelled('To', parties.client_name, parties.client_address),
          labelled('For', `Job ${job.number} ${job.name}`, parties.site),
          labelled('Contract', parties.contract_reference || '–'),
          ...(invoice ? [labelled('Invoice', String(invoice.number), `Due ${displayDate(invoice.dueOn)}`)] : []),
        ],
        columnGap: 18,
        margin: [0, 0, 0, 22],
      },
    ],
  };
}

function summary(it: ValuedApplication, company: Company, job: ApplicationDocument['job']): Content[] {
  const amount = (value: number) => displayExact(value, company.digits);
  const row = (figure: SummaryFigure, label?: string): TableCell[] => {
    const { title, value, sum: bold = false, less } = summaryFigure(figure);
    return [
      { text: label ?? (less ? `Less ${title.toLowerCase()}` : title), bold },
      { text: amount(less ? -value(it) : value(it)), bold, alignment: 'right' },
    ];
  };
  const table = (rows: TableCell[][], totals: number): Content => ({
    table: {
      headerRows: 1,
      widths: ['*', 110],
      body: [['', { text: company.currency, alignment: 'right', fontSize: 8 }] as TableCell[], ...rows],
    },
    layout: ledgerLayout(totals),
    margin: [0, 0, 0, 16],
  });
  return [
    table([row('originalContractSum'), row('changeOrders'), row('contractSum')], 1),
    table(
      [
        row('work'),
        row('materials'),
        row('gross'),
        row('retention'),
        row('net'),
        row(
          'previouslyCertified',
          it.previousNumber === null ? undefined : `Less previously certified, to no. ${it.previousNumber}`,
        ),
        row('due'),
        row('tax', `${company.taxName || 'Tax'} at ${formatPercentShortest(job.taxRate)} %`),
        row('payable'),
      ],
      1,
    ),
    table([row('retentionReleased'), row('balanceToComplete')], 1),
    { text: `Retention: ${describeRetention(job.retention)}`, fontSize: 8.5, color: '#4c453b' },
  ];
}

/** Room for two to sign. */
function signatures(company: string, client: string): Content {
  const place = (label: string): Content => ({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 220, y2: 0, lineWidth: 0.6 }] },
      { text: label, fontSize: 8, color: QUIET, margin: [0, 3, 0, 0] },
    ],
  });
  return {
    columns: [place(`For ${company}: name, date`), place(`For ${client}: name, date`)],
    columnGap: 30,
    margin: [0, 44, 0, 0],
    unbreakable: true,
  };
}

/** The change orders the contract sum holds. */
function changeTable(changes: ApplicationDocument['changes'], company: Company): Content[] {
  const money = (value: number): TableCell => ({ text: displayExact(value, company.digits), alignment: 'right' });
  return [
    { text: 'Change orders in the contract sum', font: 'Serif', fontSize: 12, margin: [0, 14, 0, 3] },
    {
      fontSize: 8,
      table: {
        headerRows: 1,
        widths: ['auto', '*', 'auto', 'auto'],
        body: [
          [
            { text: 'Number', bold: true },
            { text: 'Title', bold: true },
            { text: 'Approved', bold: true },
            { text: company.currency, bold: true, alignment: 'right' },
          ],
          ...changes.map((it): TableCell[] => [it.number, it.title, displayDate(it.decidedOn), money(it.amount)]),
          [
            { text: 'Total', colSpan: 3, bold: true },
            '',
            '',
            { ...(money(changes.reduce((sum, it) => sum + it.amount, 0)) as object), bold: true } as TableCell,
          ],
        ],
      },
      layout: ledgerLayout(1),
    },
  ];
}

function lineTable(it: ValuedApplication, company: Company, bySection: boolean): Content {
  const heads = ['Line', 'Description', 'Scheduled', 'Previous', 'Work now', 'On site', 'To date', '%', 'Balance', 'Retention'];
  const money = (value: number, bold = false): TableCell => ({
    text: displayCents(value, company.digits),
    alignment: 'right',
    noWrap: true,
    bold,
  });
  const sum = (value: (line: ValuedApplication['lines'][number]) => number) =>
    it.lines.reduce((total, line) => total + value(line), 0);
  const named = (section: string, description: string) => (section && !bySection ? `${section}: ${description}` : description);
  type Line = ValuedApplication['lines'][number];
  const lineOf = (line: Line): TableCell[] => [
    line.line,
    named(line.section, line.description),
    money(line.scheduledToDate),
    money(line.previousWork),
    money(line.thisPeriod),
    money(line.materials),
    money(line.toDate),
    { text: displayPercent(ratio(line.toDate, line.scheduledToDate)), alignment: 'right' },
    money(line.scheduledToDate - line.toDate),
    money(line.retention),
  ];
  const sections = [...new Set(it.lines.map((line) => line.section))];
  const linesOf = (section: string) => it.lines.filter((line) => line.section === section).map(lineOf);
  const sumOf = (section: string): TableCell[] => {
    const own = it.lines.filter((line) => line.section === section);
    const add = (value: (line: Line) => number) => own.reduce((total, line) => total + value(line), 0);
    const scheduled = add((line) => line.scheduledToDate);
    const toDate = add((line) => line.toDate);
    return [
      { text: section || 'No section', colSpan: 2, bold: true },
      '',
      money(scheduled, true),
      money(
        add((line) => line.previousWork),
        true,
      ),
      money(
        add((line) => line.thisPeriod),
        true,
      ),
      money(
        add((line) => line.materials),
        true,
      ),
      money(toDate, true),
      { text: displayPercent(ratio(toDate, scheduled)), alignment: 'right', bold: true },
      money(scheduled - toDate, true),
      money(
        add((line) => line.retention),
        true,
      ),
    ];
  };
  const body: TableCell[][] = [
    heads.map((text, i) => ({ text, bold: true, alignment: i < 2 ? 'left' : 'right' })),
    ...(bySection ? sections.flatMap((section) => [...linesOf(section), sumOf(section)]) : it.lines.map((line) => lineOf(line))),
    [
      { text: 'Total', colSpan: 2, bold: true },
      '',
      money(it.contractSum, true),
      money(
        sum((line) => line.previousWork),
        true,
      ),
      money(
        sum((line) => line.thisPeriod),
        true,
      ),
      money(it.materials, true),
      money(it.gross, true),
      { text: displayPercent(ratio(it.gross, it.contractSum)), alignment: 'right', bold: true },
      money(it.contractSum - it.gross, true),
      money(it.retention.total, true),
    ],
  ];
  return {
    fontSize: 7.2,
    table: { headerRows: 1, dontBreakRows: true, widths: ['auto', '*', ...Array<string>(8).fill('auto')], body },
    layout: ledgerLayout(1),
  };
}
