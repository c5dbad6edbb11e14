/** What the database engine or the disk says, as a person can act on it; null where it is none of this. */
export function troubleInWords(error: unknown): string | null {
  const code = codeOf(error);
  const found = TROUBLES.find(([pattern]) => pattern.test(code));
  return found ? found[1] : null;
}

const TROUBLES: readonly (readonly [RegExp, string])[] = [
  [/SQLITE_FULL|ENOSPC|EDQUOT/, 'The disk is full: nothing was saved. Free some space, then try again'],
  [/SQLITE_BUSY|SQLITE_LOCKED/, 'Another program holds the database: nothing was saved. Try again in a moment'],
  [
    /SQLITE_READONLY|EROFS/,
    'The database cannot be written to: its disk or its file is read-only, or it was moved. Nothing was saved',
  ],
  [
    /SQLITE_CORRUPT|SQLITE_NOTADB/,
    'The database file is damaged. Stop Ledrin, keep a copy of the file, and restore the newest backup',
  ],
  [/SQLITE_CANTOPEN/, 'The database file cannot be opened: see that it is there, and that its folder may be read and written'],
  [/SQLITE_IOERR/, 'The disk of the database cannot be read or written. See that it is there, then start Ledrin again'],
];

/** The engine's code, however deep an error was wrapped; the end of its message where it has none. */
function codeOf(error: unknown): string {
  const codes: string[] = [];
  for (let it = error; typeof it === 'object' && it !== null && codes.length < 6;) {
    const { code, message, parent, original, cause } = it as Record<string, unknown>;
    if (typeof code === 'string') codes.push(code);
    if (typeof message === 'string') codes.push(/SQLITE_[A-Z]+/.exec(message)?.[0] ?? '');
    it = parent ?? original ?? cause;
  }
  return codes.join(' ');
}
