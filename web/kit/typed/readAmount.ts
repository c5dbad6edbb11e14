import { parseCents } from '../../../core/money/cents';
import { MINUS } from '../../../core/money/display';
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
