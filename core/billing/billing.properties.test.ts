import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../calendar/plainDate';
import { AGE_BANDS, ageInvoices, type OpenInvoice } from './ageing';
import type { BilledLine } from './application';
import { overbillings } from './overbilling';

const amount = fc.integer({ min: -1_000_000, max: 1_000_000 });
const line: fc.Arbitrary<BilledLine> = fc.record({
  line: fc.constant('1'),
  work: amount,
  materials: amount,
  certifiedWork: fc.option(amount),
  certifiedMaterials: fc.option(amount),
});

test('a line is overbilled exactly where its figures to date leave the span from nothing to its value', () => {
  fc.assert(
    fc.property(line, amount, (it, scheduled) => {
      const inside = (value: number) => value >= Math.min(0, scheduled) && value <= Math.max(0, scheduled);
      const applied = inside(it.work + it.materials);
      const certified = inside((it.certifiedWork ?? it.work) + (it.certifiedMaterials ?? it.materials));
      const found = overbillings(it, scheduled);
      expect(found.some((one) => one.figure === 'work' || one.figure === 'materials')).toBe(!applied);
      if (it.certifiedWork !== null || it.certifiedMaterials !== null)
        expect(found.some((one) => one.figure.startsWith('certified'))).toBe(!certified);
      for (const one of found) {
        expect(one.by).toBeGreaterThan(0);
        // A certified fault stands on a figure that was given, so that the person finds it.
        if (one.figure === 'certifiedWork') expect(it.certifiedWork).not.toBeNull();
        if (one.figure === 'certifiedMaterials' && it.certifiedWork === null) expect(it.certifiedMaterials).not.toBeNull();
      }
    }),
  );
});

test('billing what is said to be the limit is never refused', () => {
  fc.assert(
    fc.property(line, amount, (it, scheduled) => {
      for (const { limit } of overbillings({ ...it, certifiedWork: null, certifiedMaterials: null }, scheduled)) {
        expect(
          overbillings({ line: '1', work: limit, materials: 0, certifiedWork: null, certifiedMaterials: null }, scheduled),
        ).toEqual([]);
      }
    }),
  );
});

test('each invoice stands in one band, bands add up to what is open, and it only ever moves to a later one', () => {
  const invoice: fc.Arbitrary<OpenInvoice> = fc.record({
    client: fc.constantFrom('A', 'B'),
    job: fc.constantFrom('1', '2'),
    invoice: fc.constantFrom('1', '2', '10'),
    kind: fc.constant('application' as const),
    dated: fc.constant('2031-01-01'),
    dueOn: fc.nat(60).map((days) => addDays('2031-01-05', days)),
    payable: amount,
    received: amount,
    retentionHeld: fc.nat(1000),
  });
  fc.assert(
    fc.property(fc.array(invoice, { maxLength: 8 }), fc.nat(200), fc.nat(200), (invoices, first, more) => {
      const bandAt = (it: OpenInvoice, on: string) => {
        const [aged] = ageInvoices([it], on);
        return aged ? AGE_BANDS.findIndex((band) => aged[band] !== 0) : -1;
      };
      const on = addDays('2031-01-05', first);
      for (const aged of ageInvoices(invoices, on)) {
        expect(AGE_BANDS.reduce((sum, band) => sum + aged[band], 0)).toBe(aged.payable - aged.received);
        expect(AGE_BANDS.filter((band) => aged[band] !== 0).length).toBeLessThanOrEqual(1);
        expect(aged.total).toBe(aged.open + aged.retentionHeld);
      }
      for (const it of invoices) expect(bandAt(it, addDays(on, more))).toBeGreaterThanOrEqual(bandAt(it, on));
    }),
  );
});
