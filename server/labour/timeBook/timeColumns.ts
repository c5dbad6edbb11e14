import { PAY_CLASSES } from '../../../core/labour/payClass';
import { CHARGE_COLUMNS } from '../../charging/book/chargeColumns';
import type { BookFileOf } from '../../bookFormat/bookFile';
import { date, integer, oneOf, quantity, REQUIRED, text, type ReadRow } from '../../bookFormat/columns';

export const TIME = {
  reverses: text('`SHEET/LINE/PAY` of a posted line whose pay is given; hours and units are its negatives'),
  sheet: text(REQUIRED),
  line: text(REQUIRED),
  employee: text(REQUIRED),
  dated: date(REQUIRED),
  posted_on: date('the accounting date; empty: dated'),
  job: text('empty: overhead'),
  section: text(),
  cost_code: text('required with a job'),
  work_kind: text(),
  wage_class: text("the line's own; empty: the employee's"),
  pay: oneOf(PAY_CLASSES)('empty: split by the overtime rule'),
  hours: quantity(REQUIRED),
  units: quantity('of piece work'),
  status: oneOf(['submitted', 'approved', 'posted'])('empty: posted'),
  description: text(),
  ...CHARGE_COLUMNS,
  clock: text('the times it was worked between, such as 07:00-16:30-0:30; hours count'),
  handed_over: integer(1, 1_000_000)('the hand-over to payroll it went with; of posted lines'),
  returned: text('why a submitted line was returned to whoever entered entered it'),
  department: text('of overhead; empty: that of the employee'),
};

export type TimeRow = ReadRow<typeof TIME>;
export type TimeFile = BookFileOf<typeof TIME>;
