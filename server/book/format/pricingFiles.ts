import { COST_TYPES } from '../../../core/costs/costType';
import { PART_BASES } from '../../../core/estimates/estimate';
import { PRESENTATIONS } from '../../../core/offers/clientDocument';
import { amount, date, integer, markup, needed, oneOf, percent, REQUIRED, text, unitCost, yesNo } from './columns';

const quotationKey = { job: text(REQUIRED), quotation: integer(1, 9999)(REQUIRED) };
const estimateKey = { job: text(REQUIRED), estimate: integer(1, 9999)(REQUIRED) };

/** Files of the price list and the library of terms. */
export const PRICE_FILES = {
  terms: { name: text(REQUIRED), body: text(REQUIRED) },
  price_items: {
    price_item: text(REQUIRED),
    description: text(REQUIRED),
    unit: text(),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    cost_code: text(REQUIRED),
    wage_class: text(),
    unit_cost: unitCost(REQUIRED),
    markup_percent: markup(),
    vendor: text(),
    checked_on: date(),
  },
  price_history: { price_item: text(REQUIRED), dated: date(REQUIRED), unit_cost: unitCost(REQUIRED), reason: text() },
  build_ups: { build_up: text(REQUIRED), description: text(REQUIRED), unit: text() },
  build_up_components: {
    build_up: text(REQUIRED),
    price_item: text(),
    component: text(),
    quantity: needed(REQUIRED),
    waste_percent: percent(),
  },
};

/** Files of estimates and quotations. */
export const ESTIMATE_FILES = {
  estimates: {
    ...estimateKey,
    name: text(REQUIRED),
    status: oneOf(['draft', 'sent', 'accepted'])(),
    chosen: yesNo(),
    overhead_percent: markup(),
    profit_percent: markup(),
    rounding: amount(),
    sent_on: date(),
    reference: text(),
    accepted_on: date(),
    acceptance: text(),
  },
  estimate_markups: { ...estimateKey, cost_type: oneOf(COST_TYPES)(), section: text(), markup_percent: markup(REQUIRED) },
  estimate_lines: {
    ...estimateKey,
    estimate_line: text(REQUIRED),
    section: text(),
    description: text(REQUIRED),
    quantity: needed(REQUIRED),
    unit: text(),
    build_up: text(),
    markup_percent: markup(),
  },
  estimate_parts: {
    ...estimateKey,
    estimate_line: text(REQUIRED),
    price_item: text(),
    description: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    basis: oneOf(PART_BASES)(),
    quantity: needed(REQUIRED),
    unit: text(),
    unit_cost: unitCost(REQUIRED),
    markup_percent: markup(),
  },
  estimate_prices: {
    ...estimateKey,
    build_up: text(REQUIRED),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    markup_percent: markup(),
    unit_cost: unitCost(REQUIRED),
    hours: needed(),
  },
  quotations: {
    ...quotationKey,
    estimate: integer(1, 9999)(REQUIRED),
    title: text(REQUIRED),
    presentation: oneOf(PRESENTATIONS)(),
    quantities: yesNo(),
    unit_prices: yesNo(),
    contact: text(),
    email: text(),
    introduction: text(),
    exclusions: text(),
    terms: text(),
    valid_until: date(),
    status: oneOf(['draft', 'sent', 'accepted', 'declined'])(),
    sent_on: date(),
    answered_on: date(),
    answered_by: text(),
  },
  quotation_alternates: { ...quotationKey, name: text(REQUIRED), amount: amount(REQUIRED) },
  quotation_payments: {
    ...quotationKey,
    name: text(REQUIRED),
    percent: percent(),
    amount: amount(),
    due_on: date(),
    stage: text(),
  },
};
