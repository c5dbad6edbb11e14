import { ROLE_RIGHTS, ROLES, type Right, type Role } from './rights';

interface PartOfWork {
  group: 'Reports' | 'Exports' | 'Actions';
  title: string;
  /** The right without which nobody has it. */
  needs: Right;
}

const report = (title: string, needs: Right = 'read-jobs'): PartOfWork => ({ group: 'Reports', title, needs });
const file = (title: string, needs: Right = 'read-jobs'): PartOfWork => ({ group: 'Exports', title, needs });
const action = (needs: Right, title: string): PartOfWork => ({ group: 'Actions', title, needs });

/** What the owner can take from a role, one line each. An action is a right by its own name. */
export const PARTS = {
  'report:wip': report('Work in progress'),
  'report:contract-status': report('Contract status'),
  'report:estimate-vs-actual': report('Estimate versus actual, with the budget and the forecast of a job'),
  'report:quantities': report('Quantities of the cost lines of a job'),
  'report:labour-progress': report('Hours by task'),
  'report:time-cost': report('Time and what it cost', 'read-books'),
  'report:payroll': report('Payroll', 'read-books'),
  'report:ageing': report('Ageing'),
  'report:billing-register': report('Billing register of all jobs; the applications of one job stay'),
  'report:change-register': report('Change orders of all jobs'),
  'report:cost-ledger': report('Cost ledger, with the entries behind a figure'),
  'report:trial-balance': report('Trial balance', 'read-books'),
  'report:tie-out': report('Tie-out', 'read-books'),
  'export:reportFile': file('Reports as CSV, XLSX and PDF'),
  'export:costLedgerCsv': file('Cost ledger as CSV'),
  'export:applicationPdf': file('Applications for payment as PDF'),
  'export:changeDocument': file('Change orders as PDF and DOCX'),
  'export:quotationDocument': file('Quotations as PDF and DOCX', 'read-tenders'),
  'export:priceItemsCsv': file('Price list as CSV', 'read-tenders'),
  'export:auditCsv': file('Audit trail as CSV', 'read-books'),
  'export:exportBook': file('All books as a ZIP', 'read-books'),
  estimate: action('estimate', 'Work on prices, build-ups and estimates, and award them'),
  quote: action('quote', 'Make and send quotations'),
  'manage-jobs': action('manage-jobs', 'Set up jobs and work on their job files'),
  'move-jobs': action('move-jobs', 'Move, lock and restrict jobs'),
  forecast: action('forecast', 'Forecast jobs'),
  'change-orders': action('change-orders', 'Raise, issue and decide change orders'),
  'transfer-budget': action('transfer-budget', 'Move budget between lines'),
  apply: action('apply', 'Apply for payment'),
  'schedule-billing': action('schedule-billing', 'Make billing schedules'),
  certify: action('certify', 'Certify applications, and reverse it'),
  'release-retention': action('release-retention', 'Release retention'),
  receive: action('receive', 'Record receipts'),
  'enter-time': action('enter-time', 'Enter time on week sheets'),
  'approve-time': action('approve-time', 'Approve and return time'),
  'post-costs': action('post-costs', 'Post costs, and time that is approved'),
  'correct-costs': action('correct-costs', 'Reverse and move what was posted'),
  'set-up': action('set-up', 'Set up the company, its clients, vendors, cost codes and people'),
  'import-books': action('import-books', 'Import books and files of costs'),
  'close-books': action('close-books', 'Close the books up to a day, and open them again'),
} as const satisfies Record<string, PartOfWork>;

export type Part = keyof typeof PARTS;
export const PART_NAMES = Object.keys(PARTS) as Part[];

/** Something that was taken from a role. */
export interface Narrowed {
  part: Part;
  role: Role;
}

/** Whether a role has something unless the owner takes it away; from an owner nothing is taken. */
export function canBeRemoved({ part, role }: Narrowed): boolean {
  return role !== 'owner' && ROLE_RIGHTS[role].has(PARTS[part].needs);
}

/** Roles something can be taken from. */
export const NARROWED_ROLES = ROLES.filter((role) => PART_NAMES.some((part) => canBeRemoved({ part, role })));
