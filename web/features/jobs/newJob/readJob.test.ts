import { expect, test } from '@jest/globals';
import { jobCodecs, readJob, type JobForm } from './readJob';

const NO_LISTS = { kind: new Set<string>(), department: new Set<string>(), workKind: new Set<string>() };
const context = { digits: 2, month: '2031-04', clients: new Set(['NORTH']), costCodes: new Set(['100']), listed: NO_LISTS };
const codecs = jobCodecs(context);
const good: JobForm = {
  facts: {
    number: '1',
    name: 'Mill',
    client: 'NORTH',
    status: 'awarded',
    contractSum: '10,000',
    awardedOn: '3 Apr',
    retention: '5',
    stepAt: '50',
    stepTo: '2.5',
  },
  sov: [
    { line: '1', description: 'All', value: '9,999.99' },
    {},
    { line: '2', description: 'Rest', value: '0.01', retention: '3' },
  ],
  budget: [{ code: '100', type: 'Labour', sovLine: '1', hours: '1,200.5', amount: '8000' }],
};

test('a form that is right becomes a job, empty rows passed over', () => {
  const { input, faults } = readJob(good, codecs, context);
  expect([...faults]).toEqual([]);
  expect(input).toMatchObject({
    contractSum: 1_000_000,
    awardedOn: '2031-04-03',
    retention: { rate: 50_000, stepAt: 500_000, stepTo: 25_000 },
    sov: [{ scheduledValue: 999_999 }, { retentionRate: 30_000 }],
    budget: [{ hours: 12_005_000, costType: 'labour' }],
  });
});

test('a schedule that does not come to the contract sum is no job yet, though no cell is wrong', () => {
  const { input, faults, contractSum, sovTotal } = readJob(
    { ...good, facts: { ...good.facts, contractSum: '10,000.01' } },
    codecs,
    context,
  );
  expect([input, faults.size, contractSum! - sovTotal]).toEqual([null, 0, 1]);
});

test('each wrong cell says what is wrong with it', () => {
  const { faults, input } = readJob(
    {
      facts: { ...good.facts, client: 'WEST', awardedOn: '', stepTo: '', tax: '120' },
      sov: [
        { line: '1', description: 'A', value: '1.005' },
        { line: '1', description: '', value: '' },
      ],
      budget: [{ code: '999', type: 'labor', sovLine: '7', hours: 'x', amount: '1' }],
    },
    codecs,
    context,
  );
  expect(input).toBeNull();
  expect([...faults.keys()].sort()).toEqual([
    'budget.0.code',
    'budget.0.hours',
    'budget.0.sovLine',
    'budget.0.type',
    'facts.awardedOn',
    'facts.client',
    'facts.stepTo',
    'facts.tax',
    'sov.0.value',
    'sov.1.description',
    'sov.1.line',
    'sov.1.value',
  ]);
  expect(faults.get('budget.0.type')).toBe('Expected one of labour, material, subcontract, equipment, other');
});
