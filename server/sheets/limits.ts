import { LedrinError } from '../../core/errors/ledrinError';

/** The most a sheet to be matched may hold. */
export const SHEET_ROWS = 6000;
export const SHEET_COLUMNS = 60;

/** Why a file cannot be read as a sheet. */
export function unreadable(why: string): LedrinError {
  return new LedrinError('bad-input', `file: ${why}`, [{ field: 'file', message: why }]);
}
