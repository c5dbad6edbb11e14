import type { ReadSheet } from './readSheet';

/** Faults of the cells, and those the server found, at the rows and days they are of. */
export function placedFaults(
  read: ReadSheet,
  asked: boolean,
  refused: { faults: readonly { field: string; message: string }[] } | null,
  typedAt: (row: number, column: string) => string,
): Map<string, string> {
  const shown = new Map(
    [...read.faults].filter(([at]) => {
      const [row, column = ''] = at.split('.');
      return asked || typedAt(Number(row), column) !== '';
    }),
  );
  for (const { field, message } of refused?.faults ?? []) {
    const [, line, column] = field.split('.');
    const place = line === undefined ? undefined : read.places[Number(line)];
    if (place && column) shown.set(`${place.row}.${column === 'hours' || column === 'dated' ? place.day : column}`, message);
  }
  return shown;
}
