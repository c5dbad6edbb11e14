import type { LabourList } from '../../core/labour/lists';
import type { BookFile, BookFileOf } from '../bookFormat/bookFile';
import type { BookSave } from '../bookFormat/bookSave';
import type { Columns, Row } from '../bookFormat/columns';
import { chargeRates, chargeRateValues } from '../charging/book/chargeBookFiles';
import { ChargeRateTable } from '../charging/models';
import { workKinds, workKindValues } from '../company/book/listBookFiles';
import type { NewRow, Table } from '../db/fields';
import {
  burdens,
  burdenValues,
  employees,
  employeeValues,
  overtimeRules,
  overtimeRuleValues,
  payCodes,
  payCodeValues,
  payRates,
  payRateValues,
  pieceRates,
  pieceRateValues,
  wageClasses,
  wageClassValues,
} from './bookFiles';
import {
  BurdenTable,
  EmployeeTable,
  OvertimeRuleTable,
  PayCodeTable,
  PayRateTable,
  PieceRateTable,
  WageClassTable,
  WorkKindTable,
} from './models';

/** One list of labour: its file, its table, and how a row of it is saved. */
interface SavedList<T extends Table> {
  file: BookFile;
  table: T;
  values: (row: Row<Columns>, into: BookSave) => NewRow<T>;
  /** Others refer to its rows. */
  named: boolean;
}
const saved = <C extends Columns, T extends Table>(
  file: BookFileOf<C>,
  table: T,
  values: (row: Row<C>, into: BookSave) => NewRow<T>,
  named = false,
): SavedList<T> => ({ file, table, values: values as unknown as SavedList<T>['values'], named });

/** The lists of labour that are set up, one line each. */
export const SAVED_LISTS = {
  'wage-classes': saved(wageClasses, WageClassTable, wageClassValues, true),
  employees: saved(employees, EmployeeTable, employeeValues, true),
  'work-kinds': saved(workKinds, WorkKindTable, workKindValues, true),
  'pay-rates': saved(payRates, PayRateTable, payRateValues),
  'piece-rates': saved(pieceRates, PieceRateTable, pieceRateValues),
  burdens: saved(burdens, BurdenTable, burdenValues),
  'overtime-rules': saved(overtimeRules, OvertimeRuleTable, overtimeRuleValues),
  'pay-codes': saved(payCodes, PayCodeTable, payCodeValues),
  'charge-rates': saved(chargeRates, ChargeRateTable, chargeRateValues),
} as const satisfies Record<LabourList, SavedList<Table>>;
