import { amount, date, days, integer, make, oneOf, percent, quantity, REQUIRED, text, yesNo, type Column } from './columns';
import { JOB_FILE_FILES, TEMPLATE_FILES } from './jobFileFiles';
import { OFFER_FILES } from './offerFiles';
import { ESTIMATE_FILES, PRICE_FILES } from './pricingFiles';
import { FORECAST_METHODS } from '../../../core/forecast/estimateAtCompletion';
import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import { APPLICATION_STATUSES } from '../../../core/billing/application';
import { CHANGE_STATUSES } from '../../../core/changes/changeOrder';
import { COST_TYPES } from '../../../core/costs/costType';
import { JOB_STATUSES } from '../../../core/jobs/jobStatus';

const party = { contact: text(), email: text(), phone: text(), address: text(), terms_days: days() };
const costLine = { section: text(), cost_code: text(REQUIRED), cost_type: oneOf(COST_TYPES)(REQUIRED) };

/** Every file of the book with its columns, in the order they are read, checked, saved and written. */
export const BOOK_FILES = {
  company: {
    name: text(REQUIRED),
    currency: text(REQUIRED),
    tax_name: text(),
    tax_percent: percent(),
    year_start_month: integer(1, 12)(),
    address: text(),
    job_number_pattern: text(),
  },
  customers: { customer: text(REQUIRED), name: text(REQUIRED), ...party },
  vendors: { vendor: text(REQUIRED), name: text(REQUIRED), kind: oneOf(['supplier', 'subcontractor'])(), ...party },
  cost_codes: { cost_code: text(REQUIRED), description: text(REQUIRED), unit: text() },
  ...PRICE_FILES,
  ...TEMPLATE_FILES,
  jobs: {
    job: text(REQUIRED),
    name: text(REQUIRED),
    customer: text(REQUIRED),
    contract_reference: text(),
    status: oneOf(JOB_STATUSES)(),
    awarded_on: date(),
    starts_on: date(),
    finishes_on: date(),
    finished_on: date(),
    manager: text(),
    site: text(),
    revenue_method: oneOf(REVENUE_METHODS)(),
    retention_percent: percent(),
    retention_on_materials_percent: percent(),
    retention_step_at_percent: percent(),
    retention_step_to_percent: percent(),
    retention_step_applies: oneOf(['all', 'further'])(),
    retention_cap_percent: percent(),
    tax_percent: percent(),
    terms_days: days(),
    estimator: text(),
    defects_end: date(),
    no_retention: yesNo(),
    locked: yesNo(),
  },
  ...JOB_FILE_FILES,
  ...ESTIMATE_FILES,
  schedule_of_values: {
    job: text(REQUIRED),
    sov_line: text(REQUIRED),
    section: text(),
    description: text(REQUIRED),
    scheduled_value: amount(REQUIRED),
    quantity: quantity(),
    unit: text(),
    retention_percent: percent(),
  },
  budget: {
    job: text(REQUIRED),
    ...costLine,
    sov_line: text(),
    description: text(),
    quantity: quantity(),
    unit: text(),
    hours: quantity(),
    amount: amount(REQUIRED),
    estimate_line: text(),
  },
  awards: {
    job: text(REQUIRED),
    sov_line: text(REQUIRED),
    net: amount(REQUIRED),
    spread: amount(REQUIRED),
    difference: amount(REQUIRED),
  },
  award_lines: { job: text(REQUIRED), estimate_line: text(REQUIRED), sov_line: text(REQUIRED) },
  change_orders: {
    job: text(REQUIRED),
    change_order: text(REQUIRED),
    title: text(REQUIRED),
    status: oneOf(CHANGE_STATUSES)(REQUIRED),
    raised_on: date(REQUIRED),
    issued_on: date(),
    decided_on: date(),
    reference: text(),
    reason: text(),
    asked_by: text(),
    days_asked: days(),
    days_granted: days(),
    decided_by: text(),
    decision: text(),
  },
  change_order_lines: {
    job: text(REQUIRED),
    change_order: text(REQUIRED),
    side: oneOf(['price', 'cost'])(REQUIRED),
    sov_line: text(),
    description: text(),
    section: text(),
    cost_code: text(),
    cost_type: oneOf(COST_TYPES)(),
    quantity: quantity(),
    unit: text(),
    hours: quantity(),
    amount: amount(REQUIRED),
    asked: amount(),
  },
  ...OFFER_FILES,
  budget_transfers: {
    job: text(REQUIRED),
    transfer: integer(1, 9999)(REQUIRED),
    dated: date(REQUIRED),
    reason: text(REQUIRED),
    ...costLine,
    amount: amount(REQUIRED),
    hours: quantity(),
  },
  commitments: {
    commitment: text(REQUIRED),
    kind: oneOf(['purchase-order', 'subcontract'])(REQUIRED),
    vendor: text(REQUIRED),
    dated: date(REQUIRED),
    job: text(REQUIRED),
    line: text(REQUIRED),
    ...costLine,
    description: text(),
    quantity: quantity(),
    unit: text(),
    amount: amount(REQUIRED),
    retention_percent: percent(),
    closed_on: date(),
  },
  costs: {
    dated: date(REQUIRED),
    job: text(REQUIRED),
    ...costLine,
    reference: text(REQUIRED),
    party: text(),
    description: text(),
    quantity: quantity(),
    hours: quantity(),
    amount: amount(REQUIRED),
    commitment: text(),
    commitment_line: text(),
    uninstalled: yesNo(),
    installed_on: date(),
  },
  applications: {
    job: text(REQUIRED),
    application: integer(1, 9999)(REQUIRED),
    dated: date(REQUIRED),
    status: oneOf(APPLICATION_STATUSES)(REQUIRED),
    certified_on: date(),
    reference: text(),
  },
  application_lines: {
    job: text(REQUIRED),
    application: integer(1, 9999)(REQUIRED),
    sov_line: text(REQUIRED),
    work_to_date: amount(REQUIRED),
    materials_on_site: amount(),
    certified_work_to_date: amount(),
    certified_materials_on_site: amount(),
  },
  retention_releases: { job: text(REQUIRED), dated: date(REQUIRED), amount: amount(REQUIRED), reference: text(REQUIRED) },
  receipts: {
    dated: date(REQUIRED),
    job: text(REQUIRED),
    application: text(REQUIRED),
    amount: amount(REQUIRED),
    reference: text(),
  },
  forecasts: {
    job: text(REQUIRED),
    as_of: date(REQUIRED),
    ...costLine,
    method: oneOf(FORECAST_METHODS)(REQUIRED),
    value: make<string>('forecast-value')(REQUIRED),
    note: text(),
  },
} satisfies Record<string, Record<string, Column<unknown>>>;

export type BookFileName = keyof typeof BOOK_FILES;
export const BOOK_FILE_NAMES = Object.keys(BOOK_FILES) as BookFileName[];

/** The columns each file is referred to by. */
export const KEY_COLUMNS: { [F in BookFileName]: readonly (keyof (typeof BOOK_FILES)[F])[] } = {
  company: [],
  customers: ['customer'],
  vendors: ['vendor'],
  cost_codes: ['cost_code'],
  terms: ['name'],
  price_items: ['price_item'],
  price_history: [],
  build_ups: ['build_up'],
  build_up_components: [],
  checklist_templates: [],
  job_templates: ['template'],
  jobs: ['job'],
  job_people: [],
  job_events: [],
  job_moves: [],
  job_papers: [],
  job_sections: ['job', 'section'],
  cost_plan: ['job', 'section', 'cost_code', 'cost_type'],
  billing_instalments: ['job', 'instalment'],
  instalment_stages: ['job', 'instalment', 'section'],
  job_checklist: [],
  estimates: ['job', 'estimate'],
  estimate_markups: [],
  estimate_lines: ['job', 'estimate', 'estimate_line'],
  estimate_parts: [],
  estimate_prices: [],
  quotations: ['job', 'quotation'],
  quotation_alternates: [],
  quotation_payments: [],
  schedule_of_values: ['job', 'sov_line'],
  budget: [],
  awards: ['job', 'sov_line'],
  award_lines: ['job', 'estimate_line'],
  change_orders: ['job', 'change_order'],
  change_order_lines: [],
  offers: ['link'],
  offer_questions: [],
  messages: [],
  budget_transfers: [],
  commitments: ['commitment', 'line'],
  costs: [],
  applications: ['job', 'application'],
  application_lines: [],
  retention_releases: ['job', 'reference'],
  receipts: [],
  forecasts: [],
};

type CellOf<C> = C extends Column<infer T> ? T : never;
type ColumnsOf<F extends BookFileName> = (typeof BOOK_FILES)[F];

/** A checked row: null is an empty cell, undefined one that is faulty and already reported. `row` as docs/book.md counts. */
export type BookRow<F extends BookFileName> = { [K in keyof ColumnsOf<F>]: CellOf<ColumnsOf<F>[K]> | null | undefined } & {
  row: number;
};

export type AnyColumn = Column<unknown>;

/** The columns of one file, without their types. */
export function columnsOf(file: BookFileName): Record<string, AnyColumn> {
  return BOOK_FILES[file];
}
