import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COST_TYPES } from '../../../../core/costs/costType';
import type { EstimateContent } from '../../../../core/estimates/estimate';
import { stableText } from '../../../../core/lists/stableText';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';
import { keyAmong } from '../../../kit/draft/useDraftParts';
import { formOf, partRow, readEstimate } from './estimateForm';
import { firstPartsOf, formOfParts, partsOf, renamed, savedNames, type EstimateParts } from './estimateParts';

const context = { digits: 2, costCodes: new Set(['100', '200']), buildUps: new Set(['ROOF']) };

/** Rows under the names they have in a draft. */
function joinedNames(parts: EstimateParts): EstimateParts {
  const named = (part: string) => (it: GridRow) => ({ ...it, [ROW_KEY]: keyAmong(part, it[ROW_KEY] ?? '') });
  return { ...parts, lines: parts.lines.map(named('lines')), parts: parts.parts.map(named('parts')) };
}

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

  test('as a draft it is the same, and what was typed anew is called after it is saved what it is called wherever it is read', () => {
    fc.assert(
      fc.property(content, (it) => {
        const opened = firstPartsOf(formOf(it, 2));
        const form = formOfParts(joinedNames(opened));
        expect(readEstimate(form, context).content).toEqual(it);
        // Typed anew, under names nobody else knows.
        const strange = new Map([...savedNames(form).keys()].map((key, i) => [key, `typed ${i}`]));
        const typed = renamed(form, strange);
        expect(renamed(typed, savedNames(typed))).toEqual(form);
        expect(readEstimate(formOfParts(partsOf(typed)), context).content).toEqual(it);
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
          { [ROW_KEY]: 'a', line: '1', description: 'Roof', quantity: '-4', buildUp: 'NONE' },
          { [ROW_KEY]: 'b' },
          { [ROW_KEY]: 'c', line: '1', description: '', quantity: '', markup: '1,000.00001' },
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
      'parts "c".1.basis',
      'parts "c".1.costCode',
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
