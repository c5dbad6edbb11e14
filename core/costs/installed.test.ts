import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { installedPart, leftUninstalled, uninstalledOn, type Delivered } from './installed';
import { replaced, reversed, type PostedCost } from './reversal';

const delivery = (more: Partial<Delivered> = {}): Delivered => ({
  name: 'DN-1 of job J1',
  dated: '2031-03-10',
  postedOn: '2031-03-10',
  amount: 100_000,
  quantity: 300_000,
  uninstalled: true,
  installations: [],
  ...more,
});
const asked = (more: { amount?: number; quantity?: number } = {}) => ({
  on: '2031-03-20',
  amount: null,
  quantity: null,
  ...more,
});

test('a quantity brings its share of the amount, and the last quantity all that is left', () => {
  // 1,000.00 for 30: a third of it is 333.333…, so 333.33 three times would leave a penny; the last 10 bring 333.34.
  let entry = delivery();
  const parts = [1, 2, 3].map(() => {
    const made = installedPart(entry, asked({ quantity: 100_000 }));
    if (!('part' in made)) throw new Error(made.refusal.rule);
    entry = delivery({ installations: [...entry.installations, made.part] });
    return made.part.amount;
  });
  expect(parts).toEqual([33_333, 33_333, 33_334]);
  expect(leftUninstalled(entry)).toEqual({ amount: 0, quantity: 0 });
});

test('an amount brings its share of the quantity; all of it, with neither', () => {
  // 250.00 of 1,000.00 is a quarter of 30: 7.5.
  const quarter = { installedOn: '2031-03-20', amount: 25_000, quantity: 75_000 };
  expect(installedPart(delivery(), asked({ amount: 25_000 }))).toEqual({ part: quarter });
  const rest = { installedOn: '2031-03-20', amount: 75_000, quantity: 225_000 };
  expect(installedPart(delivery({ installations: [quarter] }), asked())).toEqual({ part: rest });
});

test('more than is left, nothing, the other sign, before the delivery: refused', () => {
  const rule = (entry: Delivered, it: Parameters<typeof installedPart>[1]) => {
    const made = installedPart(entry, it);
    return 'refusal' in made ? made.refusal.rule : 'taken';
  };
  expect(rule(delivery(), asked({ amount: 100_001 }))).toBe('install-beyond');
  expect(rule(delivery(), asked({ amount: -1 }))).toBe('install-beyond');
  expect(rule(delivery(), asked({ amount: 0 }))).toBe('install-nothing');
  expect(rule(delivery(), asked({ quantity: 300_001 }))).toBe('install-beyond-quantity');
  expect(rule(delivery({ quantity: null }), asked({ quantity: 1 }))).toBe('install-no-quantity');
  expect(rule(delivery(), { ...asked(), on: '2031-03-09' })).toBe('install-before-delivery');
  // Delivered in March and posted late, in April: it was installed between.
  expect(rule(delivery({ postedOn: '2031-04-02' }), asked())).toBe('taken');
  expect(rule(delivery({ uninstalled: false }), asked())).toBe('install-not-uninstalled');
});

test('a reversal takes off, on every day from its own on, just what the entry counts as uninstalled', () => {
  const day = fc.integer({ min: 10, max: 28 }).map((n) => `2031-03-${n}`);
  const part = fc.record({ installedOn: day, amount: fc.integer({ min: -500, max: 500 }), quantity: fc.constant(null) });
  const posted = fc.record({
    dated: fc.constant('2031-03-10'),
    postedOn: fc.constant('2031-03-10'),
    amount: fc.integer({ min: -900, max: 900 }),
    quantity: fc.constant(null),
    hours: fc.constant(null),
    uninstalled: fc.boolean(),
    installations: fc.array(part, { maxLength: 4 }),
  });
  fc.assert(
    fc.property(posted, fc.option(day), day, (cost: PostedCost, on, later) => {
      const [back, instead] = [reversed(cost, on), replaced(cost, on)];
      if (later < back.postedOn) return;
      expect(uninstalledOn(cost, later) + uninstalledOn(back, later)).toBe(0);
      expect(uninstalledOn(instead, later)).toBe(uninstalledOn(cost, later));
    }),
  );
});
