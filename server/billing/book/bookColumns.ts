import { APPLICATION_STATUSES } from '../../../core/billing/application';
import type { BookFileOf } from '../../bookFormat/bookFile';
import { amount, date, integer, oneOf, REQUIRED, text } from '../../bookFormat/columns';

const KEY = { job: text(REQUIRED), application: integer(1, 9999)(REQUIRED, '1, 2, 3 …') };

export const APPLICATION = {
  ...KEY,
  dated: date(REQUIRED),
  status: oneOf(APPLICATION_STATUSES)(REQUIRED),
  certified_on: date("empty: the application's date"),
  reference: text(),
  invoice_number: integer(1, 999_999_999)('empty: the next of the series, once certified'),
  above_scheduled: amount('by how much its lines may pass their scheduled values, together; 0 or more'),
  above_reason: text('required with above_scheduled'),
};

export const APPLICATION_LINE = {
  ...KEY,
  sov_line: text(REQUIRED),
  work_to_date: amount(REQUIRED),
  materials_on_site: amount(),
  certified_work_to_date: amount('empty: as applied'),
  certified_materials_on_site: amount('empty: as applied'),
};

export const RELEASE = {
  job: text(REQUIRED),
  dated: date(REQUIRED),
  amount: amount(REQUIRED, 'before tax'),
  reference: text(REQUIRED, 'not a number'),
  invoice_number: integer(1, 999_999_999)('empty: the next of the series'),
};

export const RECEIPT = {
  dated: date(REQUIRED),
  job: text(REQUIRED),
  application: text(REQUIRED, 'its number, or the reference of a release'),
  amount: amount(REQUIRED),
  reference: text(),
};

/** The files the billing of a book is put together from. */
export interface BillingFiles {
  applications: BookFileOf<typeof APPLICATION>;
  applicationLines: BookFileOf<typeof APPLICATION_LINE>;
  retentionReleases: BookFileOf<typeof RELEASE>;
}
