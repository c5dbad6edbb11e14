import { NO_MORE } from '../../core/masters/masters';
import type { TimeLineInput } from '../../wire/weekSheets';
import { workedDay } from './workedDay';
import { addressOf, type Call, type SentOf } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import { BY_DAY, NOT_BEGUN } from './wholeBook';

type WithInput = {
  [Name in keyof typeof CALLS as (typeof CALLS)[Name]['input'] extends null ? never : Name]: SentOf<(typeof CALLS)[Name]>;
};

type Body<Name extends keyof WithInput> = WithInput[Name]['body'];

export const cost: Body<'postCosts'>['lines'][number] = {
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
const job: Body<'createJob'> = {
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
const company: Body<'saveCompany'> = {
  registrationNumber: '',
  taxNumber: '',
  phone: '',
  email: '',
  web: '',
  bankDetails: '',
  name: 'A',
  currency: 'GBP',
  taxName: '',
  taxRate: 0,
  yearStartMonth: 1,
  address: '',
  jobNumberPattern: '',
};

const item: Body<'savePriceItems'>['items'][number] = {
  code: 'X1',
  description: 'X',
  unit: 'm',
  costType: 'material',
  costCode: '200',
  wageClass: '',
  unitCost: 5,
  markup: null,
  vendor: '',
  checkedOn: null,
};
const parts: Body<'previewPricedParts'> = {
  items: [{ code: 'X1', description: 'X', unit: 'm', costType: 'material', costCode: '200', unitCost: 5, markup: null }],
  buildUp: { code: 'X2', description: 'X', unit: '', components: [{ item: 'X1', buildUp: '', quantity: 1, waste: 0 }] },
  on: '2031-04-01',
  reason: '',
};
const part: Body<'saveEstimate'>['lines'][number]['parts'][number] = {
  item: '',
  description: '',
  costCode: '100',
  costType: 'labour',
  basis: 'in-all',
  quantity: 1,
  unit: 'h',
  unitCost: 1,
  markup: null,
};
const estimate: Body<'saveEstimate'> = {
  version: 1,
  name: 'E',
  overhead: 0,
  profit: 0,
  rounding: 0,
  typeMarkups: [{ costType: 'labour', rate: 1 }],
  sectionMarkups: [{ section: 'A', rate: 1 }],
  lines: [{ line: '1', section: 'A', description: 'x', quantity: 1, unit: '', buildUp: 'BED', markup: null, parts: [part] }],
};
const award: Body<'awardJob'> = {
  acceptedOn: '2031-04-01',
  acceptance: 'a',
  agreed: 100,
  groups: [{ line: '1', section: '', description: 'x', members: ['1'], weight: null }],
};

const quotation: Body<'saveQuotation'> = {
  version: 1,
  estimate: 1,
  title: 'Q',
  presentation: 'line',
  quantities: true,
  unitPrices: true,
  contact: '',
  email: '',
  introduction: '',
  exclusions: '',
  terms: '',
  validUntil: '2031-12-01',
  alternates: [{ name: 'A', amount: 1 }],
  payments: [{ name: 'P', rate: 1_000_000, amount: null, dueOn: null, stage: '' }],
};
const mail: Body<'sendQuotation'> = { on: '2031-04-01', to: 'a@client.example', subject: 's', message: 'm' };
const change: Body<'saveChange'> = {
  version: 0,
  number: 'X1',
  title: 'T',
  raisedOn: '2031-04-01',
  reference: '',
  reason: '',
  askedBy: '',
  daysAsked: 1,
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
const decision: Body<'decideChange'> = {
  status: 'rejected',
  on: '2031-04-02',
  by: 'b',
  note: '',
  agreed: null,
  daysGranted: null,
};
const moved: Pick<Body<'transferBudget'>['lines'][number], 'section' | 'costType' | 'hours'> = {
  section: 'A',
  costType: 'labour',
  hours: null,
};
const transfer: Body<'transferBudget'> = {
  dated: '2031-04-01',
  reason: 'r',
  lines: [
    { ...moved, costCode: '100', amount: 1 },
    { ...moved, costCode: '200', amount: -1 },
  ],
};

const facts: Omit<Body<'saveJobFacts'>, 'seen'> = {
  name: 'Mill',
  client: 'NORTH',
  contractReference: '',
  manager: '',
  estimator: '',
  site: '',
  startsOn: null,
  finishesOn: null,
  defectsEnd: null,
  revenueMethod: 'cost-to-cost',
  noRetention: false,
  taxRate: 0,
  termsDays: 5,
  retention: { rate: 50_000, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
};

const master: Body<'addMaster'> = { ...NO_MORE, code: 'NEW', name: 'New', closed: false };

const PASSWORD = 'four words in a row';
const user: Body<'inviteUser'> = { name: 'Ann', email: 'ann@x.example', role: 'accountant', allJobs: false };

export const worked: TimeLineInput = {
  employee: 'E1',
  dated: '2031-03-04',
  job: 'J1',
  section: 'A',
  costCode: '100',
  workKind: '',
  department: '',
  wageClass: '',
  pay: null,
  hours: 80_000,
  units: null,
  description: '',
  clock: '',
  charge: '',
};
const DAY_OF_J1 = { job: 'J1', dated: '2031-03-04', crew: 'Ann Ash' };
const timeCorrection = { week: '2031-03-03', employees: ['E1'], lines: [worked], reason: 'r', lateOn: null };
const kindsOfWork: Body<'saveLabourList'> = {
  list: 'work-kinds',
  seen: 'x',
  rows: [{ id: null, workKind: 'cut', description: 'Cutting' }],
};

const ON_J1 = { job: 'J1' };
const DAYWORK_RUN: Body<'previewRun'> = {
  dated: '2031-03-31',
  cutOff: '2031-03-31',
  invoices: [{ job: 'J1', reference: '', shown: 'entries', wording: '', entries: null }],
};

/** Every call that takes an input, with one it takes; a call that is missing here does not compile. */
export const EXAMPLES: WithInput = {
  saveDaySheet: { ...DAY_OF_J1, body: { seen: '', day: workedDay, leftOut: '' } },
  deleteDaySheet: { ...DAY_OF_J1, body: { seen: 'x' } },
  takeDayHours: { ...DAY_OF_J1, body: { seen: 'x', rows: ['r'] } },
  handOver: { body: { from: '2031-03-01', to: '2031-03-31', seen: 'x', employees: null } },
  savePayrollSetting: { body: { seen: 'x', columns: [{ title: 'Name', field: 'name' }], declaration: '' } },
  markEntries: { ...ON_J1, body: { entries: [1], mark: 'yes' } },
  saveMarkups: { ...ON_J1, body: { seen: 'x', markups: [{ costType: 'material', markup: 100_000 }] } },
  previewRun: { body: DAYWORK_RUN },
  issueRun: { body: { ...DAYWORK_RUN, seen: 'x' } },
  creditDaywork: { ...ON_J1, invoice: 'D-1', body: { dated: '2031-03-31', amount: null, creditNote: 'CN-1', reason: 'r' } },
  closeBooks: { body: { to: '2031-01-31', reason: '' } },
  timeRemarks: { body: { lines: [worked] } },
  addSheet: { body: { week: '2031-03-03', lines: [worked] } },
  saveSheet: { sheet: '7', body: { seen: 'x', week: '2031-03-03', lines: [worked] } },
  remindMissing: { body: { on: '2031-03-05' } },
  approveTime: { sheet: '7', body: { seen: 'x', lines: [1] } },
  returnTime: { sheet: '7', body: { seen: 'x', lines: [1], reason: 'r' } },
  previewTime: { body: { sheets: ['7'], lateOn: null, leaveOut: false, asOf: '2031-03-31' } },
  postTime: { body: { sheets: ['7'], lateOn: null, leaveOut: false, seen: 'x' } },
  previewHours: { body: { week: '2031-03-03', lines: [worked], lateOn: null, asOf: '2031-03-31' } },
  postHours: { body: { week: '2031-03-03', lines: [worked], lateOn: null, seen: 'x' } },
  previewTimeCorrection: { sheet: '7', body: { ...timeCorrection, asOf: '2031-03-31' } },
  correctTime: { sheet: '7', body: { ...timeCorrection, seen: 'x' } },
  saveEstimatePattern: { body: { name: 'P', job: 'J2', estimate: 1 } },
  addEmployee: { body: { employee: 'NEW', name: 'New', costsAnHour: 5 } },
  previewLabourList: { body: kindsOfWork },
  saveLabourList: { body: kindsOfWork },
  postCosts: { body: { lines: [cost], asOf: '2031-03-31' } },
  previewCosts: { body: { lines: [cost], asOf: '2031-03-31' } },
  previewCorrection: { body: { entries: [1], to: null, on: null, reason: '', asOf: '2031-03-31' } },
  correctCosts: {
    body: { entries: [1], to: { job: null, section: 'B', costCode: null, costType: null }, on: null, reason: 'r' },
  },
  install: { body: { on: '2031-03-31', parts: [{ entry: 1, amount: 1, quantity: null }] } },
  createJob: { body: job },
  saveCompany: { body: company },
  addClient: { body: { code: 'X', name: 'X', contact: '', email: '', phone: '', address: '', termsDays: 5 } },
  addCostCodes: { body: { codes: [{ code: 'X', description: 'X', unit: '' }] } },
  saveForecast: {
    job: 'J1',
    body: {
      seen: 'as it was',
      on: '2031-04-30',
      lines: [{ section: 'A', costCode: '100', costType: 'labour', method: 'to-complete', value: 5, note: '' }],
    },
  },
  startApplication: { job: 'J1', body: { dated: '2031-04-30', reference: '', bySchedule: false } },
  signIn: { body: { who: 'Ann', password: PASSWORD } },
  demoSignIn: { body: { role: 'owner' } },
  makeOwner: { body: { name: 'Ann', email: 'ann@x.example', password: PASSWORD } },
  acceptInvitation: { token: 'none', body: { password: PASSWORD } },
  changePassword: { body: { old: PASSWORD, password: PASSWORD } },
  confirmSecondFactor: { body: { code: '123456' } },
  beginSecondFactor: { body: { password: PASSWORD } },
  endSecondFactor: { body: { password: PASSWORD } },
  inviteUser: { body: user },
  saveApprovalRules: { body: { seen: 'as it was', rules: [{ kind: 'transfer', above: 100, role: 'owner' }] } },
  decideApproval: { id: 1, body: { give: true, note: '' } },
  makeAnonymous: { name: 'Nobody', body: { years: 10 } },
  addAbsence: { body: { from: '2031-05-01', to: '2031-05-09', deputy: 'Ann' } },
  saveUser: { id: 1, body: { ...user, closed: false, seen: 'as it was' } },
  addMaster: { kind: 'clients', body: master },
  saveMaster: { kind: 'clients', code: 'NORTH', body: { ...master, seen: 'as it was' } },
  mergeMaster: { kind: 'clients', code: 'NORTH', into: 'NORTH', body: { seen: 'as it was' } },
  correctSetup: {
    job: 'J2',
    body: { seen: 'as it was', reason: 'r', contractSum: job.contractSum, sov: job.sov, budget: job.budget },
  },
  billAbove: { job: 'J1', application: 3, body: { by: 100, reason: 'r' } },
  uncertifyApplication: { job: 'J1', application: 2, body: { reason: 'r' } },
  saveApplication: {
    job: 'J1',
    application: 3,
    body: { version: null, dated: '2031-03-31', reference: '', lines: [{ line: '1', work: 1, materials: 0 }] },
  },
  previewBill: { job: 'J1', application: 3, body: { version: null, on: '2031-04-01' } },
  billApplication: { job: 'J1', application: 3, body: { version: null, on: '2031-04-01' } },
  certifyApplication: {
    job: 'J1',
    application: 3,
    body: { version: null, on: '2031-04-01', lines: [{ line: '1', work: 1, materials: 0 }] },
  },
  previewCertification: {
    job: 'J1',
    application: 3,
    body: { version: null, on: '2031-04-01', lines: [{ line: '1', work: 1, materials: 0 }] },
  },
  recordReceipt: { job: 'J1', invoice: '2', body: { dated: '2031-04-01', amount: 5, reference: '' } },
  releaseRetention: { job: 'J1', body: { dated: '2031-04-01', amount: 5, reference: 'R' } },
  reversePosting: { posting: 1, body: { on: null, reason: 'r' } },
  savePriceItems: { body: { items: [item], removed: [], on: '2031-04-01', reason: '' } },
  movePrices: { body: { by: 1, vendor: 'PANEL', costType: null, costCode: '', on: '2031-04-01', reason: '', seen: '' } },
  previewPriceMove: { body: { by: 1, vendor: '', costType: 'labour', costCode: '', on: '2031-04-01', reason: '' } },
  previewPricedParts: { body: parts },
  savePricedParts: { body: { ...parts, seen: '' } },
  saveBuildUp: {
    body: { code: 'X2', description: 'X', unit: '', components: [{ item: 'CREW', buildUp: '', quantity: 1, waste: 0 }] },
  },
  startEstimate: { job: 'J2', body: { name: 'E', copyOf: { job: 'J2', estimate: 1 } } },
  saveEstimate: { job: 'J2', estimate: 1, body: estimate },
  repriceEstimate: { job: 'J2', estimate: 1, body: { seen: '' } },
  addQuotation: { job: 'J2', body: { ...quotation, version: 0 } },
  saveQuotation: { job: 'J2', quotation: 1, body: quotation },
  sendQuotation: { job: 'J2', quotation: 1, body: mail },
  saveJobFacts: { job: 'J2', body: { ...facts, seen: '' } },
  savePeople: { job: 'J1', body: { seen: '', people: [{ side: 'client', name: 'H', role: '', email: '', phone: '' }] } },
  saveChecklist: { job: 'J1', body: { seen: '', items: [{ item: 'I', person: '', dueOn: null, doneOn: null }] } },
  saveCheckTemplate: { body: { name: 'T', items: ['I'] } },
  addEvent: { job: 'J1', body: { kind: 'call', dated: '2031-04-01', text: 't' } },
  restrictJob: { job: 'J1', body: { restricted: true, reason: 'r' } },
  endTender: { job: 'J2', body: { status: 'lost', on: '2031-04-01', reason: 'r' } },
  showOnSite: { job: 'J1', id: 1, body: { forSite: true } },
  saveNarrowing: { body: { seen: 'as it was', removed: [{ part: 'report:wip', role: 'manager' }] } },
  lockJob: { job: 'J2', body: { locked: true, reason: 'r' } },
  saveJobTemplate: {
    body: { name: 'T', content: { facts: { retention: '5' }, sov: [{ line: '1' }], budget: [{ amount: '5' }] } },
  },
  savePlan: {
    job: 'J1',
    body: {
      seen: '',
      sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: '2031-04-30' }],
      lines: [{ section: 'A', costCode: '100', costType: 'labour', startsOn: '2031-01-01', finishesOn: '2031-01-31' }],
    },
  },
  saveBillingSchedule: {
    job: 'J1',
    body: { seen: '', instalments: [{ ...BY_DAY, name: 'All', stages: ['A'], due: 'finish', from: 'stages', rate: 1_000_000 }] },
  },
  saveTerms: { body: { name: 'T', body: 'b' } },
  askAboutOffer: { token: 'none', body: { name: 'n', question: 'q' } },
  acceptOffer: { token: 'none', body: { name: 'n', signature: 'M1 1' } },
  declineOffer: { token: 'none', body: { name: 'n', reason: 'r' } },
  replyToQuestion: { id: 1, body: { answer: 'a' } },
  addChange: { job: 'J1', body: change },
  saveChange: { job: 'J1', change: 'X1', body: { ...change, version: 1 } },
  agreeChange: { job: 'J1', body: { change, was: null, on: '2031-04-30', by: 'Client' } },
  issueChange: { job: 'J1', change: 'C2', body: { on: '2031-04-01' } },
  sendChange: { job: 'J1', change: 'C2', body: mail },
  decideChange: { job: 'J1', change: 'C2', body: decision },
  transferBudget: { job: 'J1', body: transfer },
  sendEstimate: { job: 'J2', estimate: 1, body: { on: '2031-04-01', reference: '' } },
  awardJob: { job: 'J2', estimate: 1, body: award },
  moveJob: { job: 'J1', body: { status: 'closed', on: '2031-05-01' } },
};

type Posted = readonly [name: string, method: 'post' | 'put', path: string, body: Record<string, unknown>];

/** The same as requests. */
export const POSTS: readonly Posted[] = Object.entries(EXAMPLES).map(([name, args]) => {
  const call: Call = CALLS[name as keyof WithInput];
  const body = (args as { body: Record<string, unknown> }).body;
  return [name, call.method === 'PUT' ? 'put' : 'post', `/api${addressOf(call, args)}`, body];
});

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
