import { CHARGEABLE, ENTRY_KINDS, type DayList } from '../../core/daySheets/daySheet';
import { HOURS_OF_A_DAY } from '../../core/labour/sheets';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { isHash } from '../attachments/contents';
import type { BookCheck } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import { date, integer, moment, oneOf, quantity, REQUIRED, text, yesNo, type ReadRow } from '../bookFormat/columns';
import { costCodes } from '../company/book/bookFiles';
import { assertBookOfTeam, jobs } from '../jobs/bookFiles';
import { workKinds } from '../company/book/listBookFiles';
import { employees } from '../labour/bookFiles';
import { DayEntryTable, DaySheetTable, DaySignatureTable } from './models';

const SHEET = { job: text(REQUIRED), dated: date(REQUIRED), crew: text(REQUIRED) };
const BY = ['job', 'dated', 'crew'] as const;
const MOST = 9999;

export const daySheets = bookFile({
  name: 'day_sheets',
  takenBy: 'always',
  columns: {
    ...SHEET,
    weather: text(),
    notes: text(),
    left_out: text('what was left out when two versions met'),
    week_sheet: text('the week sheet its hours went into; the hours themselves are in time.csv as well'),
    written_by: text('empty: whoever imports'),
    written_at: moment('empty: now'),
  },
  key: BY,
  called: 'day sheet',
  refers: { job: { to: jobs } },
  query: `SELECT d.id, j.number AS job, d.dated, d.crew, d.weather, d.notes, d.left_out, d.sheet AS week_sheet, d.written_by, d.written_at
    FROM day_sheet d JOIN job j ON j.id = d.job_id`,
  async save(rows, into): Promise<void> {
    await assertBookOfTeam(into, new Set(rows.map((row) => into.id(jobs, row.job))));
    const key = (row: (typeof rows)[number]) => [row.job, row.dated, row.crew];
    await into.keyed(daySheets, DaySheetTable, rows, key, (row) => ({
      job_id: into.id(jobs, row.job),
      dated: row.dated,
      crew: row.crew,
      weather: row.weather ?? '',
      notes: row.notes ?? '',
      left_out: row.left_out ?? '',
      sheet: row.week_sheet ?? '',
      written_by: row.written_by ?? into.actor.name,
      written_at: row.written_at ?? into.actor.at,
    }));
  },
});

const OF_SHEET = { to: daySheets, by: BY, whole: 'enter what is new on its page' } as const;

export const daySignatures = bookFile({
  name: 'day_signatures',
  takenBy: 'always',
  columns: {
    ...SHEET,
    number: integer(1, MOST)(REQUIRED),
    name: text(REQUIRED, 'who signed for the client'),
    office: text(),
    signed_on: date(REQUIRED),
    strokes: text(REQUIRED, 'of a field of 1000 × 400: points `x,y` apart by spaces, strokes apart by `;`'),
  },
  key: [...BY, 'number'],
  called: 'signature',
  refers: { crew: OF_SHEET },
  query: `SELECT s.id, j.number AS job, d.dated, d.crew, s.number, s.name, s.office, s.signed_on, s.strokes
    FROM day_signature s JOIN day_sheet d ON d.id = s.day_sheet_id JOIN job j ON j.id = d.job_id`,
  check(row, book) {
    if (row.strokes && !/^\d{1,4},\d{1,3}([ ;]\d{1,4},\d{1,3})*$/.test(row.strokes))
      book.fault(daySignatures, row, 'strokes', 'expected points such as 10,20 30,40; apart by spaces');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      DaySignatureTable,
      rows.map((row) => ({
        day_sheet_id: into.id(daySheets, row.job, row.dated, row.crew),
        number: row.number,
        name: row.name,
        office: row.office ?? '',
        signed_on: row.signed_on,
        strokes: row.strokes,
      })),
    ),
});

const ENTRY = {
  ...SHEET,
  kind: oneOf(ENTRY_KINDS)(REQUIRED),
  employee: text('of hours'),
  section: text(),
  cost_code: text('of hours and quantities'),
  work_kind: text(),
  pay: oneOf(PAY_CLASSES)('of hours; empty: split by the overtime rule'),
  hours: quantity('of hours and equipment'),
  quantity: quantity('of quantities: what was installed'),
  unit: text(),
  headcount: integer(0, MOST)('of subcontractors'),
  name: text('a machine, a subcontractor, who delivered, visited, was hurt or instructed'),
  reference: text('the number of a delivery note'),
  description: text(),
  photo: text('SHA-256 of a picture, a row of job_papers.csv'),
  charged: yesNo('to be charged to the client; of hours, equipment, deliveries'),
  signature: integer(1, MOST)('the signature it stands under'),
};

export const dayEntries = bookFile({
  name: 'day_entries',
  takenBy: 'always',
  columns: ENTRY,
  key: [],
  keyNote: 'job, dated, crew, several rows',
  refers: {
    crew: OF_SHEET,
    employee: { to: employees },
    cost_code: { to: costCodes },
    work_kind: { to: workKinds },
    signature: { to: daySignatures, by: [...BY, 'signature'] },
  },
  query: `SELECT x.id, j.number AS job, d.dated, d.crew, x.kind, e.code AS employee, x.section, c.code AS cost_code, k.code AS work_kind,
      x.pay, x.hours, x.quantity, x.unit, x.headcount, x.name, x.reference, x.description, x.photo, x.charged,
      nullif(x.signature, 0) AS signature
    FROM day_entry x JOIN day_sheet d ON d.id = x.day_sheet_id JOIN job j ON j.id = d.job_id
    LEFT JOIN employee e ON e.id = x.employee_id LEFT JOIN cost_code c ON c.id = x.cost_code_id LEFT JOIN work_kind k ON k.id = x.work_kind_id`,
  check: checkEntry,
  save: (rows, into): Promise<void> =>
    into.insertAll(
      DayEntryTable,
      rows.map((row) => ({
        day_sheet_id: into.id(daySheets, row.job, row.dated, row.crew),
        kind: row.kind,
        section: row.section ?? '',
        employee_id: row.employee ? into.id(employees, row.employee) : null,
        cost_code_id: row.cost_code ? into.id(costCodes, row.cost_code) : null,
        work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
        pay: row.pay,
        hours: row.hours,
        quantity: row.quantity,
        unit: row.unit ?? '',
        headcount: row.headcount,
        name: row.name ?? '',
        reference: row.reference ?? '',
        description: row.description ?? '',
        photo: row.photo ?? '',
        charged: row.charged ? 1 : 0,
        signature: row.signature ?? 0,
      })),
    ),
});

type EntryColumn = keyof typeof ENTRY;
/** What an entry of a kind cannot do without. */
const NEEDED: Readonly<Record<Exclude<DayList, 'signatures'>, readonly EntryColumn[]>> = {
  hours: ['employee', 'cost_code', 'hours'],
  quantities: ['cost_code', 'quantity'],
  equipment: ['name', 'hours'],
  subcontractors: ['name', 'headcount'],
  deliveries: ['name'],
  visitors: [],
  incidents: [],
  instructions: [],
  photos: ['photo'],
};

function checkEntry(row: ReadRow<typeof ENTRY>, book: BookCheck): void {
  const add = (column: EntryColumn, message: string) => book.fault(dayEntries, row, column, message);
  const { kind } = row;
  for (const column of kind ? NEEDED[kind] : []) if (row[column] === null) add(column, `missing required cell: ${kind} need it`);
  for (const column of ['hours', 'quantity'] as const) if ((row[column] ?? 0) < 0) add(column, 'is below 0');
  if ((row.hours ?? 0) > HOURS_OF_A_DAY) add('hours', 'a day has 24 hours');
  if (row.photo && !isHash(row.photo)) add('photo', 'is not a SHA-256 in 64 hexadecimal digits');
  if (row.charged && kind && !(CHARGEABLE as readonly string[]).includes(kind)) add('charged', `${kind} are not charged`);
  if (row.signature && !row.charged) add('signature', 'only what is charged stands under a signature');
}
