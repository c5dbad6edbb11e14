import { aheadRemark, remarksOn, type TimeRemark } from '../../core/labour/timeRemarks';
import { priceTime, whyUnpriced } from '../../core/labour/priceTime';
import { withDisplayDates } from '../../core/calendar/displayDate';
import type { TimeLineInput } from '../../wire/weekSheets';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { labourTasks } from '../labour/labourTasks';
import { EmployeeTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import type { SignedIn } from '../acts/signedIn';
import { JOBS_FOR_TIME } from './queries';
import { seenJobs } from './saveSheet';

/** More than these, and the rest is found once they are mended. */
const MOST = 200;
const EVER = '2199-12-31';

type Remarked = TimeRemark & { line: number };

/** What is unusual about lines, each by its place. Of a job that is not seen nothing is said. */
export async function timeRemarks(
  sql: Reader,
  lines: readonly TimeLineInput[],
  today: string,
  person: SignedIn | null,
): Promise<Remarked[]> {
  const seen = await seenJobs(sql, person);
  const jobs = new Map((await sql.all(JOBS_FOR_TIME)).filter((it) => seen?.has(it.id) ?? true).map((it) => [it.number, it]));
  const employees = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, it]));
  const terms = await loadTerms(sql);
  const digits = await loadDigits(sql);
  const budgets = new Map<string, ReadonlySet<string>>();
  for (const number of new Set(lines.map((it) => it.job)))
    if (jobs.has(number)) budgets.set(number, await budgetedTasks(sql, number));
  const reported = new Set<string>();
  const remarks: Remarked[] = [];
  lines.forEach((line, i) => {
    const job = jobs.get(line.job);
    const employee = employees.get(line.employee);
    const price =
      employee && (line.job === '' || job)
        ? priceTime({ ...line, employeeClass: employee.wage_class, pay: line.pay ?? 'regular' }, terms, digits)
        : null;
    const facts = {
      sections: job ? new Set(JSON.parse(job.sections) as string[]) : null,
      budgeted: budgets.get(line.job)?.has(taskKey(line)) ?? false,
      unpriced: typeof price === 'string' && employee ? withDisplayDates(whyUnpriced(price, line, employee.name)) : null,
    };
    for (const remark of remarksOn(line, facts)) {
      // Said once, however many lines are of the same task or person.
      const key = remark.kind === 'unpriced' ? `unpriced ${line.employee}` : remark.message;
      if (reported.has(key) || remarks.length >= MOST) continue;
      reported.add(key);
      remarks.push({ ...remark, line: i });
    }
  });
  const ahead = aheadRemark(
    lines.map((it) => it.dated),
    today,
  );
  if (ahead) remarks.push({ ...ahead, line: lines.findIndex((it) => it.dated > today) });
  return remarks;
}

const taskKey = ({ section, costCode }: Pick<TimeLineInput, 'section' | 'costCode'>) => JSON.stringify([section, costCode]);

async function budgetedTasks(sql: Reader, number: string): Promise<ReadonlySet<string>> {
  const tasks = await labourTasks(sql, await jobByNumber(sql, number, 'job'), EVER);
  return new Set(tasks.filter((it) => it.state.budgeted).map(taskKey));
}
