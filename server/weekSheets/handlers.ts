import { weekSheetCalls } from '../../wire/weekSheets';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { correctTime, planCorrection } from './correctTime';
import { approveTime, returnTime } from './decideTime';
import { planHours, postHours } from './postHours';
import { approvedOf, planPosting, postTime, previewPosting } from './postTime';
import { readyTime, timeRate } from './readyTime';
import { addSheet, saveSheet } from './saveSheet';
import { timeRemarks } from './timeRemarks';
import { weekCost } from './weekCost';
import { weekBy } from '../../core/labour/overtime';
import { loadTerms } from '../labour/terms';
import { remindMissing } from './reminders';
import { hoursOfWeek, missingIn, taskHours, timeLists, weekRegister, weekSheet, workedBefore } from './sheetViews';

export const weekSheetHandlers = handle(weekSheetCalls, {
  timeLists: (sql, _args, { person }) => timeLists(sql, person),
  weekRegister: (sql, { on }) => weekRegister(sql, on),
  weekCost: (sql, { on }) => weekCost(sql, on),
  weekSheet: (sql, { sheet, on }) => weekSheet(sql, sheet, on),
  hoursOfWeek: (sql, { on }) => hoursOfWeek(sql, on),
  remindMissing: async (command, { body: { on } }) => {
    const week = weekBy((await loadTerms(command.sql)).rules, on);
    return remindMissing(command, week, await missingIn(command.sql, week));
  },
  workedBefore: (sql, { on }) => workedBefore(sql, on),
  taskHours: (sql, { jobs, asOf }) => taskHours(sql, jobs, asOf),
  addSheet: (command, { body }, { person }) => addSheet(command, body, person),
  saveSheet: (command, { sheet, body }, { person }) => saveSheet(command, sheet, body, person),
  approveTime: (command, { sheet, body }, { person }) => approveTime(command, sheet, body, person),
  returnTime: (command, { sheet, body }, { person }) => returnTime(command, sheet, body, person),
  readyTime: (sql) => readyTime(sql),
  timeRemarks: (database, { body }, context) =>
    database.read((sql) => timeRemarks(sql, body.lines, todayOf(context), context.person)),
  previewTime: (database, { body: { sheets, lateOn, leaveOut, asOf } }) =>
    previewPosting(database, asOf, async (sql) => planPosting(sql, await approvedOf(sql, sheets), lateOn, leaveOut)),
  postTime: (command, { body }) => postTime(command, body),
  previewHours: (database, { body: { asOf, ...body } }, { person }) =>
    previewPosting(database, asOf, async (sql) => (await planHours(sql, body, person)).planned),
  postHours: (command, { body }, { person }) => postHours(command, body, person),
  previewTimeCorrection: (database, { sheet, body: { asOf, ...body } }, { person }) =>
    previewPosting(database, asOf, async (sql) => (await planCorrection(sql, sheet, body, person)).planned),
  correctTime: (command, { sheet, body }, { person }) => correctTime(command, sheet, body, person),
  timeRate: (sql, args) => timeRate(sql, args),
});
