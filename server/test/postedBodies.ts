import { BY_DAY, NOT_BEGUN } from './wholeBook';

export const cost = {
  dated: '2031-03-12',
  job: 'J1',
  section: 'A',
  costCode: '200',
  costType: 'material',
  party: '',
  reference: 'D',
  hours: null,
  amount: 100,
  description: '',
  commitment: '',
  uninstalled: false,
};
const job = {
  number: 'N1',
  name: 'New',
  client: 'NORTH',
  contractReference: '',
  status: 'awarded',
  awardedOn: '2031-05-01',
  startsOn: null,
  finishesOn: null,
  manager: '',
  site: '',
  revenueMethod: 'cost-to-cost',
  contractSum: 100,
  retention: { rate: 0, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
  taxRate: 0,
  termsDays: null,
  sov: [{ line: '1', section: '', description: 'x', scheduledValue: 100, quantity: null, unit: '', retentionRate: null }],
  budget: [],
  draftId: null,
};
const company = { name: 'A', currency: 'GBP', taxName: '', taxRate: 0, yearStartMonth: 1, address: '', jobNumberPattern: '' };

const item = {
  ...{ code: 'X1', description: 'X', unit: 'm', costType: 'material', costCode: '200', wageClass: '', unitCost: 5, markup: null },
  ...{ vendor: '', checkedOn: null },
};
const part = {
  ...{ item: '', description: '', costCode: '100', costType: 'labour', basis: 'in-all', quantity: 1, unit: 'h', unitCost: 1 },
  markup: null,
};
const estimate = {
  ...{ version: 1, name: 'E', overhead: 0, profit: 0, rounding: 0, typeMarkups: [{ costType: 'labour', rate: 1 }] },
  sectionMarkups: [{ section: 'A', rate: 1 }],
  lines: [{ line: '1', section: 'A', description: 'x', quantity: 1, unit: '', buildUp: 'BED', markup: null, parts: [part] }],
};
const award = {
  ...{ acceptedOn: '2031-04-01', acceptance: 'a', agreed: 100 },
  groups: [{ line: '1', section: '', description: 'x', members: ['1'], weight: null }],
};

const quotation = {
  ...{ version: 1, estimate: 1, title: 'Q', presentation: 'line', quantities: true, unitPrices: true, contact: '', email: '' },
  ...{ introduction: '', exclusions: '', terms: '', validUntil: '2031-12-01', alternates: [{ name: 'A', amount: 1 }] },
  payments: [{ name: 'P', rate: 1_000_000, amount: null, dueOn: null, stage: '' }],
};
const mail = { on: '2031-04-01', to: 'a@client.example', subject: 's', message: 'm' };
const change = {
  ...{ version: 0, number: 'X1', title: 'T', raisedOn: '2031-04-01', reference: '', reason: '', askedBy: '', daysAsked: 1 },
  price: [{ line: '1', section: '', description: 'x', quantity: null, unit: '', amount: 1 }],
  cost: [
    {
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '',
      description: '',
      quantity: null,
      unit: '',
      hours: 1,
      amount: 1,
    },
  ],
};
const decision = { status: 'rejected', on: '2031-04-02', by: 'b', note: '', agreed: null, daysGranted: null };
const moved = { section: 'A', costType: 'labour', hours: null };
const transfer = {
  ...{ dated: '2031-04-01', reason: 'r' },
  lines: [
    { ...moved, costCode: '100', amount: 1 },
    { ...moved, costCode: '200', amount: -1 },
  ],
};

const facts = {
  ...{
    name: 'Mill',
    contractReference: '',
    manager: '',
    estimator: '',
    site: '',
    startsOn: null,
    finishesOn: null,
    defectsEnd: null,
  },
  ...{ revenueMethod: 'cost-to-cost', noRetention: false, taxRate: 0, termsDays: 5 },
  retention: { rate: 50_000, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
};

/** Every route that changes something, with a body it takes. */
export const POSTS: [method: 'post' | 'put', path: string, body: Record<string, unknown>][] = [
  ['post', '/api/costs', { lines: [cost], asOf: '2031-03-31' }],
  ['post', '/api/costs/preview', { lines: [cost], asOf: '2031-03-31' }],
  ['post', '/api/jobs', job],
  ['post', '/api/company', company],
  ['post', '/api/clients', { code: 'X', name: 'X', contact: '', email: '', phone: '', address: '', termsDays: 5 }],
  ['post', '/api/cost-codes', { codes: [{ code: 'X', description: 'X', unit: '' }] }],
  ['post', '/api/jobs/J1/applications', { dated: '2031-04-30', reference: '', bySchedule: false }],
  ['put', '/api/jobs/J1/applications/3', { dated: '2031-03-31', reference: '', lines: [{ line: '1', work: 1, materials: 0 }] }],
  ['post', '/api/jobs/J1/applications/3/certify', { on: '2031-04-01', lines: [{ line: '1', work: 1, materials: 0 }] }],
  ['post', '/api/jobs/J1/invoices/2/receipts', { dated: '2031-04-01', amount: 5, reference: '' }],
  ['post', '/api/jobs/J1/releases', { dated: '2031-04-01', amount: 5, reference: 'R' }],
  ['post', '/api/postings/1/reverse', { on: null, reason: 'r' }],
  ['put', '/api/prices/items', { items: [item], on: '2031-04-01', reason: '' }],
  ['post', '/api/prices/move', { by: 1, vendor: 'PANEL', costType: null, costCode: '', on: '2031-04-01', reason: '', seen: '' }],
  ['post', '/api/prices/move/preview', { by: 1, vendor: '', costType: 'labour', costCode: '', on: '2031-04-01', reason: '' }],
  [
    'put',
    '/api/build-ups',
    { code: 'X2', description: 'X', unit: '', components: [{ item: 'CREW', buildUp: '', quantity: 1, waste: 0 }] },
  ],
  ['post', '/api/jobs/J2/estimates', { name: 'E', copyOf: { job: 'J2', estimate: 1 } }],
  ['put', '/api/jobs/J2/estimates/1', estimate],
  ['post', '/api/jobs/J2/estimates/1/reprice', { seen: '' }],
  ['post', '/api/jobs/J2/quotations', { ...quotation, version: 0 }],
  ['put', '/api/jobs/J2/quotations/1', quotation],
  ['post', '/api/jobs/J2/quotations/1/send', mail],
  ['put', '/api/jobs/J2/facts', { ...facts, seen: '' }],
  ['put', '/api/jobs/J1/people', { seen: '', people: [{ side: 'client', name: 'H', role: '', email: '', phone: '' }] }],
  ['put', '/api/jobs/J1/checklist', { seen: '', items: [{ item: 'I', person: '', dueOn: null, doneOn: null }] }],
  ['put', '/api/checklists', { name: 'T', items: ['I'] }],
  ['post', '/api/jobs/J1/events', { kind: 'call', dated: '2031-04-01', text: 't' }],
  ['post', '/api/jobs/J2/lock', { locked: true, reason: 'r' }],
  [
    'put',
    '/api/job-templates',
    { name: 'T', content: { facts: { retention: '5' }, sov: [{ line: '1' }], budget: [{ amount: '5' }] } },
  ],
  [
    'put',
    '/api/jobs/J1/plan',
    {
      seen: '',
      sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: '2031-04-30' }],
      lines: [{ section: 'A', costCode: '100', costType: 'labour', startsOn: '2031-01-01', finishesOn: '2031-01-31' }],
    },
  ],
  [
    'put',
    '/api/jobs/J1/billing-schedule',
    { seen: '', instalments: [{ ...BY_DAY, name: 'All', stages: ['A'], due: 'finish', from: 'stages', rate: 1_000_000 }] },
  ],
  ['put', '/api/terms', { name: 'T', body: 'b' }],
  ['post', '/api/answer/none/ask', { name: 'n', question: 'q' }],
  ['post', '/api/answer/none/accept', { name: 'n', signature: 'M1 1' }],
  ['post', '/api/answer/none/decline', { name: 'n', reason: 'r' }],
  ['post', '/api/questions/1', { answer: 'a' }],
  ['post', '/api/jobs/J1/changes', change],
  ['put', '/api/jobs/J1/changes/X1', { ...change, version: 1 }],
  ['post', '/api/jobs/J1/changes/C2/issue', { on: '2031-04-01' }],
  ['post', '/api/jobs/J1/changes/C2/send', mail],
  ['post', '/api/jobs/J1/changes/C2/decide', decision],
  ['post', '/api/jobs/J1/transfers', transfer],
  ['post', '/api/jobs/J2/estimates/1/sent', { on: '2031-04-01', reference: '' }],
  ['post', '/api/jobs/J2/estimates/1/award', award],
  ['post', '/api/jobs/J1/status', { status: 'closed', on: '2031-05-01' }],
  ['post', '/api/drafts', { content: {} }],
  ['put', '/api/drafts/1', { content: {} }],
];

/** Bad values for any field, by what is wrong with them. */
const BAD: unknown[] = [
  null,
  true,
  -1e300,
  1e20,
  1.5,
  '',
  ' ',
  'x'.repeat(5000),
  "'; DROP TABLE job; --",
  '<script>alert(1)</script>',
  [],
  {},
  '2031-02-30',
  Number.MAX_SAFE_INTEGER,
];

/** Bodies with one field at a time made bad, at any depth. */
export function* spoilt(body: unknown, path: (string | number)[] = []): Generator<[string, unknown]> {
  if (body === null || typeof body !== 'object') return;
  for (const key of Object.keys(body)) {
    const value = (body as Record<string, unknown>)[key];
    for (const bad of BAD) yield [[...path, key].join('.'), { ...clone(body), [key]: bad }];
    for (const [where, inner] of spoilt(value, [...path, key])) {
      const copy = clone(body) as Record<string, unknown>;
      copy[key] = inner;
      yield [where, copy];
    }
  }
}
const clone = (value: object): object => (Array.isArray(value) ? [...(value as unknown[])] : { ...value });
