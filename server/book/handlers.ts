import { LedrinError } from '../../core/errors/ledrinError';
import { bookCalls } from '../../wire/book';
import { storesOf, type Context } from '../http/context';
import { handle } from '../http/handlers';
import type { Received } from '../http/upload';
import type { Asked } from '../acts/command';

const GIGABYTE = 2 ** 30;

function importFolder(asked: Asked, folder: string, context: Context, skipIdentical = false) {
  const { database, workers } = context;
  return database.alone(() => workers.run('importBookAlone', database.file, asked, folder, storesOf(context), skipIdentical));
}

const BOOK_LIMITS = { files: 20_000, fileSize: 2 * GIGABYTE, total: 8 * GIGABYTE };

/** The folder of files that may be a company's: CSV files, or a ZIP of them. */
function bookFolder(received: Received | null): string {
  const files = received?.files ?? [];
  if (received && files.some((it) => /\.(csv|zip)$/i.test(it.name))) return received.folder;
  const message =
    files.length === 0
      ? 'expected the CSV files of a company, or their ZIP'
      : 'none of the files is a CSV file or a ZIP; nothing was imported';
  throw new LedrinError('bad-input', `files: ${message}`, [{ field: 'files', message }]);
}

export const bookHandlers = handle(bookCalls, {
  loadSampleBook: {
    limits: null,
    alone: (asked, _args, _received, context) => importFolder(asked, context.sampleBook, context),
  },
  previewImport: {
    limits: BOOK_LIMITS,
    alone: (asked, _args, received, { database, workers }) =>
      workers.run('previewImport', database.file, asked, bookFolder(received)),
  },
  importBook: {
    limits: BOOK_LIMITS,
    alone: (asked, { identical }, received, context) => importFolder(asked, bookFolder(received), context, identical === 'skip'),
  },
  exportBook: async (database, _args, context) => ({
    type: 'application/zip',
    name: 'book.zip',
    content: await context.workers.run('exportZip', database.file, storesOf(context)),
  }),
});
