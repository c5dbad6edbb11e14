import { displayExact, displayQuantity } from '../../core/money/display';
import type { ClientDocument } from '../../core/offers/clientDocument';
import { formatUnitCost } from '../../core/prices/unitCost';

/** The lines of a client's document as text, alike in every format. The first two columns are words, the others figures. */
export interface ClientTable {
  head: string[];
  rows: string[][];
  total: { label: string; amount: string };
}

/** Quantities, unit prices and amounts have a column where a line shows one. */
export function clientTable(it: ClientDocument): ClientTable {
  const cellOf = {
    quantity: (line: ClientDocument['lines'][number]) =>
      line.quantity === null ? '' : `${displayQuantity(line.quantity)} ${line.unit}`,
    unitPrice: ({ unitPrice }: ClientDocument['lines'][number]) =>
      unitPrice === null ? '' : formatUnitCost(unitPrice, it.digits),
    amount: ({ amount }: ClientDocument['lines'][number]) => (amount === null ? '' : displayExact(amount, it.digits)),
  };
  const titles = { quantity: 'Quantity', unitPrice: 'Unit price', amount: it.currency };
  const figures = (['quantity', 'unitPrice', 'amount'] as const).filter((key) => it.lines.some((line) => line[key] !== null));
  return {
    head: ['Line', 'Description', ...figures.map((key) => titles[key])],
    rows: it.lines.map((line) => [
      line.line,
      line.section ? `${line.section}: ${line.description}` : line.description,
      ...figures.map((key) => cellOf[key](line)),
    ]),
    total: {
      label: `${it.kind === 'change' ? 'Change to the contract sum' : 'Price'}, ${it.currency} before tax`,
      amount: displayExact(it.total, it.digits),
    },
  };
}
