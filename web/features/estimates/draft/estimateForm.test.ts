import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COST_TYPES } from '../../../../core/costs/costType';
import type { EstimateContent } from '../../../../core/estimates/merge';
import { stableText } from '../../../../core/lists/stableText';
import { formOf, partRow, readEstimate } from './estimateForm';

const context = { digits: 2, costCodes: new Set(['100', '200']), buildUps: new Set(['ROOF']) };

describe('an estimate on the screen', () => {
  const text = fc.constantFrom('', 'Roof', 'with, comma', '½ “quoted”');
  const rate = fc.option(fc.integer({ min: -1_000_000, max: 10_000_000 }), { nil: null });
  const needed = fc.integer({ min: 0, max: 99_999_999_999 });
  const content = fc
    .record({
      lines: fc.array(
        fc.record({
          section: text,
          quantity: needed,
          unit: fc.constantFrom('', 'm2'),
          buildUp: fc.constantFrom('', 'ROOF'),
          markup: rate,
          parts: fc.array(
            fc.record({
              item: text,
              description: text,
              costCode: fc.constantFrom('100', '200'),
              costType: fc.constantFrom(...COST_TYPES),
              basis: fc.constantFrom('per-unit' as const, 'in-all' as const),
              quantity: needed,
              unit: text,
              unitCost: fc.integer({ min: 0, max: 9_999_999_999_999 }),
              markup: rate,
            }),
            { maxLength: 3 },
          ),
        }),
        { maxLength: 5 },
      ),
      overhead: fc.integer({ min: -1_000_000, max: 10_000_000 }),
      profit: fc.integer({ min: -1_000_000, max: 10_000_000 }),
      rounding: fc.integer({ min: -9_999_999, max: 9_999_999 }),
      labour: fc.integer({ min: -1_000_000, max: 10_000_000 }),
      sectionA: fc.integer({ min: -1_000_000, max: 10_000_000 }),
    })
    .map(({ lines, labour, sectionA, ...rest }): EstimateContent => ({
      name: 'E',
      ...rest,
      lines: lines.map((it, i) => ({ line: `${i + 1}`, description: `Line ${i + 1}`, ...it })),
      typeMarkups: { labour },
      sectionMarkups: { A: sectionA },
    }));

  test('is read back as it was shown, to the last decimal', () => {
    fc.assert(
      fc.property(content, (it) => {
        const read = readEstimate(formOf(it, 2), context);
        expect([...read.faults]).toEqual([]);
        expect(read.content).toEqual(it);
        // What is only looked at is not saved again: key order is no change.
        expect(stableText(read.content)).toBe(stableText(it));
      }),
    );
  });

  test('says in each cell what is wrong, passes empty rows over, and counts what cannot be read as nothing', () => {
    const form = formOf({ name: '', lines: [], typeMarkups: {}, sectionMarkups: {}, overhead: 0, profit: 0, rounding: 0 }, 2);
    const read = readEstimate(
      {
        ...form,
        overhead: 'six',
        lines: [
          { id: 'a', line: '1', description: 'Roof', quantity: '-4', buildUp: 'NONE' },
          { id: 'b' },
          { id: 'c', line: '1', description: '', quantity: '', markup: '1,000.00001' },
        ],
        parts: { c: [{}, { costType: 'lab', costCode: '999', quantity: '0.5', unitCost: '1,250.5', basis: 'al' }] },
      },
      context,
    );
    expect([...read.faults.keys()].sort()).toEqual([
      'lines.0.buildUp',
      'lines.0.quantity',
      'lines.2.description',
      'lines.2.line',
      'lines.2.markup',
      'name',
      'overhead',
      'parts.c.1.basis',
      'parts.c.1.costCode',
    ]);
    expect(read.places).toEqual([0, null, 1]);
    expect(read.content.lines[1]!.parts).toEqual([
      {
        item: '',
        description: '',
        costCode: '',
        costType: 'labour',
        basis: 'per-unit',
        quantity: 5_000,
        unit: '',
        unitCost: 12_505_000,
        markup: null,
      },
    ]);
    expect(partRow(read.content.lines[1]!.parts[0]!, 2)).toMatchObject({ unitCost: '1,250.50', basis: 'each' });
  });
});
