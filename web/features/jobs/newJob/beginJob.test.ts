import { expect, test } from '@jest/globals';
import type { JobSetup } from '../../../../wire/jobs';
import { copyInto, templateOf, type CopiedPart } from './beginJob';
import { jobCodecs, readJob } from './readJob';

const made: Omit<JobSetup, 'seen' | 'frozen'> = {
  sov: [
    {
      line: '1',
      section: 'A',
      description: 'Roof',
      scheduledValue: 1_234_500,
      quantity: 125_000,
      unit: 'm2',
      retentionRate: 30_000,
    },
  ],
  budget: [
    {
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '1',
      description: 'Crew',
      quantity: null,
      unit: '',
      hours: 400_000,
      amount: 900_000,
    },
  ],
  retention: { rate: 50_000, materialsRate: 0, stepAt: 500_000, stepTo: 25_000, stepApplies: 'further', cap: null },
  taxRate: 200_000,
  termsDays: 14,
  revenueMethod: 'hours',
  people: [{ side: 'team', name: 'Ines', role: '', email: '', phone: '' }],
  checklist: [{ item: 'Bond', person: '', dueOn: null, doneOn: null }],
};
const setup: JobSetup = { ...made, seen: 'as it is', frozen: null };
const empty = { facts: { number: 'N1', name: 'New', client: 'C', status: 'tender' }, sov: [], budget: [] };
const all = new Set<CopiedPart>(['sov', 'budget', 'retention', 'team', 'checklist']);
const NO_LISTS = { kind: new Set<string>(), department: new Set<string>(), workKind: new Set<string>() };
const context = { digits: 2, month: '2031-04', clients: new Set(['C']), costCodes: new Set(['100']), listed: NO_LISTS };

test('a copied job is read back as the one it was copied from', () => {
  const { input, faults } = readJob(copyInto(empty, setup, all, true, 2), jobCodecs(context), context);
  expect([...faults]).toEqual([]);
  expect(input).toMatchObject({ ...made, number: 'N1', contractSum: 1_234_500 });
});

test('without amounts it has the lines alone; what is not ticked stays; a template forgets what is the job’s own', () => {
  const bare = copyInto(empty, setup, new Set<CopiedPart>(['sov', 'checklist']), false, 2);
  expect(bare.sov[0]).toEqual({
    line: '1',
    section: 'A',
    description: 'Roof',
    value: '',
    quantity: '',
    unit: 'm2',
    retention: '3',
  });
  expect([bare.budget, bare.people, bare.checklist?.length, bare.facts]).toEqual([[], undefined, 1, empty.facts]);
  expect(templateOf({ ...empty, facts: { ...empty.facts, retention: '5' } }).facts).toEqual({ status: 'tender', retention: '5' });
});
