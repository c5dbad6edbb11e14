import { daySheetCalls } from '../../wire/daySheets';
import { usualDay } from '../company/company';
import { todayOf } from '../http/context';
import { handle, type Download } from '../http/handlers';
import { documentOfDay, documentOfDaywork, documentOfWeek } from './dayDocument';
import { addDayPhoto, dayPhoto, LARGEST_PICTURE } from './dayPhotos';
import { dayRegister } from './dayRegister';
import { daySheet, daysOfWeekSheet, type DayKey } from './daySheetViews';
import { printed } from './printed';
import { phonePack } from './phonePack';
import { deleteDaySheet, saveDaySheet, takeDayHours } from './saveDaySheet';

export const daySheetHandlers = handle(daySheetCalls, {
  phonePack: async (sql, _args, context) => phonePack(sql, await usualDay(sql, todayOf(context)), context.person),
  dayRegister: async (sql, { on }, context) => dayRegister(sql, on, await usualDay(sql, todayOf(context))),
  daySheet: (sql, key) => daySheet(sql, key),
  daysOfWeekSheet: (sql, { sheet }) => daysOfWeekSheet(sql, sheet),
  saveDaySheet: (command, { body, ...key }, { person }) => saveDaySheet(command, key, body, person),
  deleteDaySheet: (command, { body, ...key }, { person }) => deleteDaySheet(command, key, body.seen, person),
  takeDayHours: (command, { body, ...key }, { person }) => takeDayHours(command, key, body, person),
  addDayPhoto: {
    limits: { files: 1, fileSize: LARGEST_PICTURE, total: LARGEST_PICTURE + 10_000 },
    run: (command, key, received, { files }) => addDayPhoto(command, key, received, files),
  },
  dayPhoto: (database, { hash }, { files }) => database.read((sql) => dayPhoto(sql, hash, files)),
  daySheetPdf: async (database, key, { workers, files }) =>
    pdf(fileName('day-sheet', key), await printed(workers, await database.read((sql) => documentOfDay(sql, key, files)))),
  dayWeekPdf: async (database, { job, on }, { workers, files }) =>
    pdf(`day-sheets-${job}-${on}.pdf`, await printed(workers, await database.read((sql) => documentOfWeek(sql, job, on, files)))),
  dayworkSheetPdf: async (database, { id, ...key }, { workers }) =>
    pdf(
      fileName('daywork', key),
      await workers.run('dayworkPdf', await database.read((sql) => documentOfDaywork(sql, key, id)), id),
    ),
});

const pdf = (name: string, content: Buffer): Download => ({ type: 'application/pdf', name, inline: true, content });
const fileName = (what: string, { job, dated }: DayKey) => `${what}-${job}-${dated}.pdf`;
