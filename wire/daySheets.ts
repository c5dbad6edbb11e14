import * as v from 'valibot';
import type { HoursDifference } from '../core/daySheets/hoursDiffer';
import type { DaySheet } from '../core/daySheets/daySheet';
import { isCrewName } from '../core/daySheets/crewName';
import { PAY_CLASSES, type PayClass } from '../core/labour/payClass';
import { HOURS_OF_A_DAY } from '../core/labour/sheets';
import { command, download, query, upload } from './call';
import { filled, list, plainDate, quantity, text } from './fields';
import type { SheetState } from '../core/labour/timeLife';
import type { TimeLists } from './weekSheets';

const MOST_ROWS = 500;
const code = text(40);
const charged = v.boolean('expected yes or no');
const number = v.pipe(
  v.number('expected a whole number'),
  v.safeInteger('expected a whole number'),
  v.minValue(0, 'expected 0 or more'),
  v.maxValue(9999, 'expected at most 9,999'),
);
const positive = v.pipe(quantity, v.minValue(0, 'expected 0 or more'));
const hours = v.pipe(positive, v.maxValue(HOURS_OF_A_DAY, 'a day has 24 hours'));
/** SHA-256 of a picture; empty for none. */
const photo = v.pipe(v.string('expected text'), v.regex(/^([0-9a-f]{64})?$/, 'expected the SHA-256 of a picture, or nothing'));
const remark = v.strictObject({ name: text(), description: text(2000) });
const rows = <Row extends v.GenericSchema>(row: Row, what: string) => list(row, MOST_ROWS, what);

/** Strokes of a signature: whole numbers of a field 1000 wide and 400 high. */
const strokes = v.pipe(
  text(20_000),
  v.regex(/^\d{1,4},\d{1,3}( \d{1,4},\d{1,3})*(;\d{1,4},\d{1,3}( \d{1,4},\d{1,3})*)*$/, 'expected a signature'),
);

export const daySheetInput = v.strictObject({
  weather: text(),
  notes: text(8000),
  hours: rows(
    v.strictObject({
      employee: filled(40),
      section: text(80),
      costCode: filled(40),
      workKind: code,
      pay: v.nullable(v.picklist(PAY_CLASSES, `expected one of ${PAY_CLASSES.join(', ')}`)),
      hours,
      description: text(400),
      charged,
      signature: number,
    }),
    'rows of hours',
  ),
  quantities: rows(
    v.strictObject({ section: text(80), costCode: filled(40), quantity: positive, unit: text(20), description: text(400) }),
    'quantities',
  ),
  equipment: rows(v.strictObject({ name: filled(), hours, description: text(400), charged, signature: number }), 'pieces'),
  subcontractors: rows(v.strictObject({ name: filled(), headcount: number, description: text(400) }), 'subcontractors'),
  deliveries: rows(
    v.strictObject({
      name: filled(),
      reference: text(80),
      description: text(400),
      photo,
      charged,
      signature: number,
    }),
    'deliveries',
  ),
  visitors: rows(remark, 'visitors'),
  incidents: rows(remark, 'incidents'),
  instructions: rows(remark, 'instructions'),
  photos: rows(v.strictObject({ photo: v.pipe(photo, v.nonEmpty('expected a picture')), description: text(400) }), 'photos'),
  signatures: rows(
    v.strictObject({
      number: v.pipe(number, v.minValue(1, 'expected 1 or more')),
      name: filled(),
      office: text(),
      signedOn: plainDate,
      strokes,
    }),
    'signatures',
  ),
}) satisfies v.GenericSchema<unknown, DaySheet>;

/** Names a crew, also in an address: who leads it. */
export const crewName = v.pipe(
  filled(80),
  v.check((it) => isCrewName(it), 'expected the name of a crew'),
);

/** Hours of the week sheet that a day sheet feeds. */
export interface WeekHours {
  employee: string;
  section: string;
  costCode: string;
  pay: PayClass | null;
  hours: number;
  state: SheetState;
  /** Why they were returned; empty where they were not. */
  returned: string;
}

export interface DaySheetView {
  job: string;
  jobName: string;
  dated: string;
  crew: string;
  /** Digest of what it says: sent back with a change. */
  seen: string;
  day: DaySheet;
  /** What was left out when two versions of it met. */
  leftOut: string;
  writtenBy: string;
  writtenAt: string;
  /** The week sheet its hours went into; empty for none. */
  weekSheet: string;
  weekHours: WeekHours[];
  /** The week sheet has other hours of this day: the office changed them, or they were approved before the day sheet was. */
  differs: boolean;
  /** Where they differ, row by row. */
  differences: HoursDifference[];
  /** Names of the pictures that have arrived, by their SHA-256. */
  arrived: string[];
}

/** A task hours and quantities are put on. */
export interface PhoneTask {
  section: string;
  costCode: string;
  description: string;
  unit: string;
  budgeted: number;
  used: number;
}

export interface PhoneJob {
  number: string;
  name: string;
  site: string;
  sections: string[];
  /** Of its hours, by its code; empty: none. */
  workKind: string;
  tasks: PhoneTask[];
  /** Who was on its last day sheet, by code. */
  crew: string[];
}

/** All that a phone needs for a day without a connection. No money. */
export interface PhonePack {
  name: string;
  today: string;
  jobs: PhoneJob[];
  employees: TimeLists['employees'];
  workKinds: TimeLists['workKinds'];
  costCodes: TimeLists['costCodes'];
  /** Hours of a usual day, in ten-thousandths: what overtime begins after. */
  usualHours: number;
  /** Weeks whose hours the office asks for, and of whom. */
  reminders: { week: string; people: string }[];
  /** Sheets of the last days. */
  sheets: DaySheetView[];
}

/** A day sheet whose hours went into a week sheet. */
export interface DayOfSheet {
  job: string;
  dated: string;
  crew: string;
  differs: boolean;
}

export interface DayOfJob {
  dated: string;
  missing: boolean;
  sheets: { crew: string; people: number; hours: number; incidents: number; unsigned: number; differs: boolean }[];
}

export interface DayRegister {
  /** First day of the week. */
  week: string;
  jobs: { job: string; jobName: string; days: DayOfJob[] }[];
}

const on = v.strictObject({ on: plainDate });
const ONE = '/day-sheets/:job/:dated/:crew';
export const daySheetCalls = {
  phonePack: query<PhonePack>('enter-time')('/phone-pack'),
  dayRegister: query<DayRegister>('enter-time')('/day-sheets', { query: on }),
  daySheet: query<DaySheetView>('enter-time')(ONE),
  /** Writes over what was seen of it, '' for a new one; the same sent again changes nothing. */
  saveDaySheet: command<{ seen: string; differs: boolean }>('enter-time')(ONE, {
    method: 'PUT',
    input: v.strictObject({ seen: text(64), day: daySheetInput, leftOut: text(8000) }),
  }),
  daysOfWeekSheet: query<DayOfSheet[]>('enter-time')('/week-sheets/:sheet/day-sheets'),
  deleteDaySheet: command('enter-time')(`${ONE}/deletion`, { input: v.strictObject({ seen: filled(64) }) }),
  /** Puts rows of hours of the day sheet, by their keys, into its week sheet, over what the office has there and has not approved. */
  takeDayHours: command('approve-time')(`${ONE}/hours`, {
    input: v.strictObject({ seen: filled(64), rows: list(filled(400), MOST_ROWS, 'rows of hours') }),
  }),
  addDayPhoto: upload('enter-time')(`${ONE}/photos`),
  dayPhoto: download('enter-time')('/day-photos/:hash'),
  daySheetPdf: download('enter-time')(`${ONE}/pdf`),
  dayWeekPdf: download('enter-time')('/day-weeks/:job', { query: on }),
  /** Entries under a signature; 0: marked and not signed yet. */
  dayworkSheetPdf: download('enter-time')(`${ONE}/daywork/:id`),
};
