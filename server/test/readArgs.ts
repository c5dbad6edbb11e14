import type { SentOf } from '../../wire/call';
import type { CALLS } from '../../wire/calls';

/** What each call that reads is sent. */
export type Reading = {
  [Name in keyof typeof CALLS as (typeof CALLS)[Name]['kind'] extends 'query' | 'download' ? Name : never]: SentOf<
    (typeof CALLS)[Name]
  >;
};
const asOf = '2031-03';
const DAY = { job: 'J1', dated: '2031-03-03', crew: 'Ann Ash' };
const J1 = { job: 'J1', asOf };

/** Every call that reads, with what it is read by; one that is missing here does not compile. Not there: what only a message, an answer or posted time brings. */
export const READS: Omit<
  Reading,
  | 'answer'
  | 'approval'
  | 'personalData'
  | 'siteDocument'
  | 'invitation'
  | 'answerDocument'
  | 'messageFile'
  | 'attachment'
  | 'quotation'
  | 'quotationDocument'
  | 'timeRate'
  | 'dayPhoto'
  | 'payrollRun'
  | 'payrollCsv'
  | 'dayworkInvoice'
  | 'dayworkInvoicePdf'
> = {
  session: {},
  health: {},
  waiting: {},
  sessions: {},
  openPayroll: { from: '2031-03-01', to: '2031-03-31' },
  phonePack: {},
  dayRegister: { on: '2031-03-05' },
  daySheet: DAY,
  closing: {},
  daysOfWeekSheet: { sheet: '7' },
  daySheetPdf: DAY,
  dayWeekPdf: { job: 'J1', on: '2031-03-05' },
  dayworkSheetPdf: { ...DAY, id: 0 },
  payrollRuns: {},
  payrollSetting: {},
  wageStatement: { job: 'J1', on: '2031-03-05' },
  wageStatementPdf: { job: 'J1', on: '2031-03-05' },
  wageStatementCsv: { job: 'J1', on: '2031-03-05' },
  achievedHours: { asOf },
  peopleAtWork: { asOf },
  timeLists: {},
  weekRegister: { on: '2031-03-05' },
  weekSheet: { sheet: '7' },
  workedBefore: { on: '2031-03-10' },
  hoursOfWeek: { on: '2031-03-05' },
  taskHours: { jobs: 'J1,J2', asOf },
  readyTime: {},
  labourList: { list: 'pay-rates' },
  findRate: { employee: 'E1', job: 'J1', section: 'A', workKind: '', wageClass: '', on: '2031-03-03' },
  narrowing: {},
  approvalRules: {},
  approvals: { kind: 'transfer' },
  absences: {},
  users: {},
  signInFailures: {},
  siteJobs: {},
  siteJob: { job: 'J1' },
  lists: { asOf },
  exportBook: {},
  priceList: {},
  achieved: {},
  priceItemsCsv: {},
  priceHistory: { code: 'CREW' },
  jobList: { asOf },
  job: J1,
  forecast: J1,
  labourOfJob: J1,
  labourByCode: { asOf },
  estimateVersusActual: J1,
  contractStatus: J1,
  lineQuantities: J1,
  jobSetup: { job: 'J1' },
  jobTemplates: {},
  jobFile: { job: 'J1' },
  plan: J1,
  billingSchedule: J1,
  estimateList: { job: 'J2' },
  estimate: { job: 'J2', estimate: 1 },
  repricing: { job: 'J2', estimate: 1 },
  quotationList: { job: 'J2' },
  tenders: {},
  quotations: {},
  terms: {},
  messages: {},
  changeRegister: { asOf },
  jobChanges: J1,
  change: { ...J1, change: 'C1' },
  changeOffers: { job: 'J1', change: 'C1' },
  changeDocument: { job: 'J1', change: 'C1', format: 'docx' },
  transfers: J1,
  companyLogo: {},
  masters: { kind: 'clients' },
  usedLabourLists: {},
  estimatePatterns: {},
  weekCost: { on: '2031-03-03' },
  jobBeginning: { client: 'NORTH', kind: '' },
  mergePreview: { kind: 'cost-codes', code: '100', into: '200' },
  auditCsv: { job: 'J1' },
  audit: { job: 'J1' },
  uninstalled: { asOf, job: 'J1' },
  costPage: { asOf, search: 'D_%' },
  costTotals: { asOf, job: '2107' },
  costSubtotals: { asOf, by: 'party' },
  recentCodings: {},
  budgetedLines: { jobs: 'J1,J2', asOf: '2031-03-31' },
  costLedgerCsv: { asOf },
  unbilled: { asOf },
  jobCharging: J1,
  billingRegister: { asOf },
  jobBilling: J1,
  application: { ...J1, application: 3 },
  applicationPdf: { job: 'J1', application: 3 },
  postings: { asOf },
  posting: { posting: 1 },
  workings: { asOf, figure: 'earned', job: 'J1' },
  report: { name: 'wip', asOf },
  reportFile: { name: 'ageing', format: 'csv', asOf },
};
