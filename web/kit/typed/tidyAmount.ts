import { parseCents } from '../../../core/money/cents';
import { displayExact, MINUS } from '../../../core/money/display';
import { withoutThousands } from './withoutThousands';

/** What a person typed or pasted as an amount: `12,500`, `12 500.00`, `(40.50)`, a true minus; null where it is none. */
export function readAmount(text: string, digits: number): number | null {
  const plain = text
    .trim()
    .replace(/^\((.*)\)$/, '-$1')
    .replaceAll(MINUS, '-')
    .replace(/[£$€]\s*/g, '');
  const read = parseCents(withoutThousands(plain), digits);
  return read.ok ? read.value : null;
}

/** Shows an amount as it was understood; what is not a valid amount stays as typed. */
export function tidyAmount(digits: number) {
  return (typed: string): string => {
    const value = readAmount(typed, digits);
    return value === null ? typed : displayExact(value, digits);
  };
}
