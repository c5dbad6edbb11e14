import type { PlainDate } from '../calendar/plainDate';
import { multiplyDivide } from '../money/round';
import type { Cents } from '../money/cents';
import { formatQuantity } from '../money/rate';
import { refuse, type Refusal } from '../refusals/refusal';

/** A part of an uninstalled entry that was installed, of the entry's sign. */
export interface Installation {
  installedOn: PlainDate;
  amount: Cents;
  /** In ten-thousandths; null where the entry has no quantity. */
  quantity: number | null;
}

/** Material that was posted as delivered and not installed, with the parts installed since. */
export interface Delivered {
  /** What it is called in a message, such as its reference. */
  name: string;
  /** The day it was delivered: its document's own. */
  dated: PlainDate;
  postedOn: PlainDate;
  amount: Cents;
  quantity: number | null;
  uninstalled: boolean;
  installations: readonly Installation[];
}

/** What was installed on a day: the amount, else the quantity; all that is left where both are null. */
export interface InstallAsked {
  on: PlainDate;
  amount: Cents | null;
  quantity: number | null;
}

/** What of an entry counts as uninstalled at the end of `day` (docs/rules.md: uninstalled materials), of the entry's sign. */
export function uninstalledOn(
  { uninstalled, amount, postedOn, installations }: Omit<Delivered, 'name' | 'dated'>,
  day: PlainDate,
): Cents {
  if (!uninstalled || postedOn > day) return 0;
  return amount - installations.reduce((sum, it) => sum + (it.installedOn <= day ? it.amount : 0), 0);
}

/** What is left of an entry whatever the day of its installations. */
export function leftUninstalled({ amount, quantity, installations }: Delivered): { amount: Cents; quantity: number | null } {
  return {
    amount: amount - installations.reduce((sum, it) => sum + it.amount, 0),
    quantity: quantity === null ? null : quantity - installations.reduce((sum, it) => sum + (it.quantity ?? 0), 0),
  };
}

/**
 * The part that is installed: a quantity brings its share of the entry's amount, rounded half away from zero, an amount its share of
 * the quantity; the last quantity brings all that is left. Refused where nothing, more than is left, or the other sign is asked for.
 */
export function installedPart(entry: Delivered, asked: InstallAsked): { part: Installation } | { refusal: Refusal } {
  const left = leftUninstalled(entry);
  const no = (refusal: Refusal) => ({ refusal });
  if (!entry.uninstalled || left.amount === 0) return no(refuse('install-not-uninstalled', 'entry', { entry: entry.name }));
  if (asked.on < entry.dated) return no(refuse('install-before-delivery', 'on', { on: asked.on, delivered: entry.dated }));
  const installedOn = asked.on;
  if (asked.amount !== null) {
    const { amount } = asked;
    if (amount === 0) return no(refuse('install-nothing', 'amount', {}));
    if (beyond(amount, left.amount)) return no(refuse('install-beyond', 'amount', { amount, left: left.amount }));
    return { part: { installedOn, amount, quantity: quantityOf(entry, amount, left) } };
  }
  if (asked.quantity === null) return { part: { installedOn, ...left } };
  const { quantity } = asked;
  if (entry.quantity === null || left.quantity === null)
    return no(refuse('install-no-quantity', 'quantity', { entry: entry.name }));
  if (quantity === 0) return no(refuse('install-nothing', 'quantity', {}));
  if (beyond(quantity, left.quantity))
    return no(
      refuse('install-beyond-quantity', 'quantity', { quantity: formatQuantity(quantity), left: formatQuantity(left.quantity) }),
    );
  const share = multiplyDivide(entry.amount, quantity, entry.quantity);
  const amount = quantity === left.quantity || beyond(share, left.amount) ? left.amount : share;
  return { part: { installedOn, amount, quantity } };
}

function quantityOf(entry: Delivered, amount: Cents, left: { amount: Cents; quantity: number | null }): number | null {
  if (entry.quantity === null || left.quantity === null || amount === left.amount) return left.quantity;
  const share = multiplyDivide(entry.quantity, amount, entry.amount);
  return beyond(share, left.quantity) ? left.quantity : share;
}

/** More than `left`, or of the other sign. */
function beyond(asked: number, left: number): boolean {
  return asked !== 0 && (Math.sign(asked) !== Math.sign(left) || Math.abs(asked) > Math.abs(left));
}
