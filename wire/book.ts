import { command, download, upload } from './call';

/** What an import brought: rows without headers, by file. */
export type ImportCounts = Record<string, number>;

export const bookCalls = {
  loadSampleBook: command<ImportCounts>('set-up')('/book/sample'),
  importBook: upload<ImportCounts>('set-up')('/book/import'),
  exportBook: download()('/book/export'),
};
