import { LedrinError } from '../../core/errors/ledrinError';
import { bookCalls } from '../../wire/book';
import { storesOf, type Context } from '../http/context';
import { handle } from '../http/handlers';
import type { Asked } from '../ledger/command';

const GIGABYTE = 2 ** 30;

function importFolder(asked: Asked, folder: string, context: Context) {
  const { database, workers } = context;
  return database.alone(() => workers.run('importBookAlone', database.file, asked, folder, storesOf(context)));
}

export const bookHandlers = handle(bookCalls, {
  loadSampleBook: {
    limits: null,
    alone: (asked, _args, _received, context) => importFolder(asked, context.sampleBook, context),
  },
  importBook: {
    limits: { files: 20_000, fileSize: 2 * GIGABYTE, total: 8 * GIGABYTE },
    alone: (asked, _args, received, context) => {
      if (received === null || received.files.length === 0)
        throw new LedrinError('bad-input', 'files: expected the CSV files of a company', [
          { field: 'files', message: 'expected the CSV files of a company' },
        ]);
      if (!received.files.some((it) => it.name.toLowerCase().endsWith('.csv')))
        throw new LedrinError('bad-input', 'None of the files is a CSV file of a company; nothing was imported', [
          { field: 'files', message: 'expected CSV files, such as jobs.csv' },
        ]);
      return importFolder(asked, received.folder, context);
    },
  },
  exportBook: async (database, _args, context) => ({
    type: 'application/zip',
    name: 'book.zip',
    content: await context.workers.run('exportZip', database.file, storesOf(context)),
  }),
});
