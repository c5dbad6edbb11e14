import type { Migration } from './migration';

/** Column that refers to another table, and whether it may be empty: the index then holds only rows where it is not. */
const REFERENCES: readonly (readonly [table: string, column: string, when: 'always' | 'where filled'])[] = [
  ['absence', 'deputy_id', 'always'],
  ['absence', 'user_id', 'always'],
  ['application', 'posting_id', 'where filled'],
  ['application_line', 'sov_line_id', 'always'],
  ['award', 'estimate_id', 'always'],
  ['award_line', 'sov_line_id', 'always'],
  ['build_up_component', 'component_id', 'where filled'],
  ['build_up_component', 'price_item_id', 'where filled'],
  ['burden', 'job_id', 'where filled'],
  ['change_order_line', 'sov_line_id', 'where filled'],
  ['commitment', 'vendor_id', 'always'],
  ['cost_entry', 'cost_line_id', 'always'],
  ['cost_line', 'cost_code_id', 'always'],
  ['day_entry', 'work_kind_id', 'where filled'],
  ['estimate_part', 'cost_code_id', 'always'],
  ['estimate_price', 'cost_code_id', 'always'],
  ['installation', 'cost_entry_id', 'always'],
  ['installation', 'job_id', 'always'],
  ['job', 'client_id', 'always'],
  ['message', 'job_id', 'always'],
  ['offer_question', 'offer_id', 'always'],
  ['pay_code', 'job_id', 'where filled'],
  ['pay_code', 'work_kind_id', 'where filled'],
  ['pay_rate', 'employee_id', 'where filled'],
  ['pay_rate', 'job_id', 'where filled'],
  ['pay_rate', 'work_kind_id', 'where filled'],
  ['piece_rate', 'cost_code_id', 'always'],
  ['piece_rate', 'work_kind_id', 'where filled'],
  ['price_item', 'cost_code_id', 'always'],
  ['price_item', 'vendor_id', 'where filled'],
  ['quotation', 'estimate_id', 'always'],
  ['quotation_alternate', 'quotation_id', 'always'],
  ['quotation_payment', 'quotation_id', 'always'],
  ['receipt', 'posting_id', 'always'],
  ['retention_release', 'posting_id', 'always'],
  ['time_line', 'cost_code_id', 'where filled'],
  ['time_line', 'posting_id', 'where filled'],
  ['time_line', 'work_kind_id', 'where filled'],
];

/**
 * An index for each reference that has none: whenever a row is deleted, or references are checked at the end of a transaction, the
 * engine looks for the rows that refer to it, and without an index reads the whole table for each.
 */
export const indexForEachReference: Migration = {
  name: '0026-index-for-each-reference',
  statements: REFERENCES.map(
    ([table, column, when]) =>
      `CREATE INDEX ${table}_of_${column} ON ${table} (${column})${when === 'always' ? '' : ` WHERE ${column} IS NOT NULL`}`,
  ),
};
