import { LedrinError } from '../../core/errors/ledrinError';

/** The most a sheet to be matched may hold. */
export const SHEET_ROWS = 6000;
export const SHEET_COLUMNS = 60;
/** Texts the cells of a workbook may share, over all its sheets. */
export const SHARED_TEXTS = 1_000_000;

/** Why a file cannot be read as a sheet. */
export function unreadable(why: string): LedrinError {
  return new LedrinError('bad-input', `file: ${why}`, [{ field: 'file', message: why }]);
}
