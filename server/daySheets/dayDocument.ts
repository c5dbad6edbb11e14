import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { chargedEntries } from '../../core/daySheets/daySheet';
import { LedrinError } from '../../core/errors/ledrinError';
import { weekBy } from '../../core/labour/overtime';
import type { DaySheetView } from '../../wire/daySheets';
import { companyLogo, loadCompany, type Company } from '../company/company';
import { ClientTable } from '../company/models';
import type { Reader } from '../db/sql';
import { AttachmentTable } from '../jobFile/models';
import { jobByNumber } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { EmployeeTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import { CODES_FOR_TIME } from '../weekSheets/queries';
import { LAST_OF_WEEK } from '../weekSheets/sheetViews';
import { daySheet, viewsOf, type DayKey } from './daySheetViews';
import { DAY_SHEETS_OF_JOB } from './queries';

/** Day sheets as they are printed. */
export interface DayDocument {
  company: Company;
  logo: string;
  job: { number: string; name: string; site: string; client: string };
  /** First and last day. */
  from: PlainDate;
  to: PlainDate;
  sheets: DaySheetView[];
  /** Names of employees and descriptions of cost codes, by their codes. */
  employees: Record<string, string>;
  costCodes: Record<string, string>;
  /** Pictures as data addresses, by their SHA-256; those that have not arrived are left out. */
  pictures: Record<string, string>;
}

/** Of one day sheet. */
export async function documentOfDay(sql: Reader, key: DayKey, folder: string): Promise<DayDocument> {
  return documentOf(sql, [await daySheet(sql, key)], { job: key.job, from: key.dated, to: key.dated, folder });
}

/** Of all sheets of a job in the week a day lies in. */
export async function documentOfWeek(sql: Reader, job: string, on: PlainDate, folder: string): Promise<DayDocument> {
  const from = weekBy((await loadTerms(sql)).rules, on);
  const to = addDays(from, LAST_OF_WEEK);
  const sheets = await viewsOf(sql, await sql.all(DAY_SHEETS_OF_JOB, [from, to, job]));
  if (sheets.length === 0) throw new LedrinError('not-found', `Job ${job} has no day sheets from ${from} to ${to}`);
  return documentOf(sql, sheets, { job, from, to, folder });
}

/** Of what is to be charged of a day: under a signature, or for 0 not signed yet. Throws not-found where there is nothing. */
export async function documentOfDaywork(sql: Reader, key: DayKey, signature: number): Promise<DayDocument> {
  const view = await daySheet(sql, key);
  const { hours, equipment, deliveries } = chargedEntries(view.day, signature);
  if (hours.length + equipment.length + deliveries.length === 0)
    throw new LedrinError('not-found', 'Nothing of this day sheet is marked to be charged under that number');
  return documentOf(sql, [view], { job: key.job, from: key.dated, to: key.dated, folder: null });
}

async function documentOf(
  sql: Reader,
  sheets: DaySheetView[],
  { job: number, from, to, folder }: { job: string; from: string; to: string; folder: string | null },
): Promise<DayDocument> {
  const { id } = await jobByNumber(sql, number, 'job');
  const job = await sql.findOne(JobTable, { id });
  const client = job && (await sql.findOne(ClientTable, { id: job.client_id }));
  const employees = await sql.find(EmployeeTable, {});
  return {
    company: await loadCompany(sql),
    logo: await companyLogo(sql),
    from,
    to,
    sheets,
    job: { number, name: job?.name ?? '', site: job?.site ?? '', client: client?.name ?? '' },
    employees: Object.fromEntries(employees.map((it) => [it.code, it.name])),
    costCodes: Object.fromEntries((await sql.all(CODES_FOR_TIME)).map((it) => [it.code, it.description])),
    pictures: folder === null ? {} : await picturesOf(sql, id, sheets, folder),
  };
}

async function picturesOf(
  sql: Reader,
  job: number,
  sheets: readonly DaySheetView[],
  folder: string,
): Promise<Record<string, string>> {
  const hash = sheets.flatMap(({ arrived }) => arrived);
  const found = await sql.find(AttachmentTable, { job_id: job, hash });
  return Object.fromEntries(
    found.flatMap((it) => {
      const path = join(folder, it.hash);
      if (!existsSync(path)) return [];
      return [[it.hash, `data:${it.media_type};base64,${readFileSync(path).toString('base64')}`]];
    }),
  );
}
