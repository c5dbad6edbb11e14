import { PAY_CLASSES } from '../../core/labour/payClass';
import { explainRate } from '../../core/labour/payRates';
import { priceTime } from '../../core/labour/priceTime';
import { ONE_HOUR } from '../../core/labour/sheets';
import type { ArgsOf } from '../../wire/call';
import type { labourListCalls, RateFinding } from '../../wire/labourLists';
import { fieldError } from '../acts/refused';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { EmployeeTable } from './models';
import { loadTerms } from './terms';

/** What an hour of somebody costs on a day, by which rung, and what became of the others. */
export async function findRate(
  sql: Reader,
  { employee, job, section, workKind, wageClass, on }: ArgsOf<typeof labourListCalls.findRate>,
): Promise<RateFinding> {
  const who = await sql.findOne(EmployeeTable, { code: employee });
  if (!who) throw fieldError('employee', `There is no employee ${employee}`);
  const terms = await loadTerms(sql);
  const digits = await loadDigits(sql);
  const ofClass = wageClass || who.wage_class;
  const work = { employee, job, section, workKind, wageClass: ofClass };
  const { found, looked } = explainRate(terms.rates, work, wageClass !== '', on);
  const line = { ...work, wageClass, employeeClass: who.wage_class, dated: on, costCode: '', hours: ONE_HOUR, units: null };
  return {
    rate: found?.rate ?? null,
    rung: found?.rung ?? null,
    looked,
    wageClass: ofClass,
    costs: PAY_CLASSES.flatMap((pay): RateFinding['costs'] => {
      const price = priceTime({ ...line, pay }, terms, digits);
      if (typeof price === 'string') return [];
      const { payAmount, burden, burdens } = price;
      return [{ pay, payAmount, burden, burdens: [...burdens] }];
    }),
  };
}
