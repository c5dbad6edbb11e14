import { present } from '../../core/errors/known';
import { inJob } from '../../core/places/place';
import { money, type Operand } from '../../core/workings/workings';
import { loadPositions } from '../costs/jobPositions';
import { dayworkOfJob } from '../daywork/unbilled';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';

/** A job as of the date, as far as what is charged of it goes. */
export async function chargedPosition(sql: Reader, job: JobIdentity, asOf: string) {
  const [it] = await loadPositions(sql, asOf, job.id);
  return present(it).position;
}

/** What is charged beside the contract, where there is any. */
export async function dayworkOperands(sql: Reader, job: JobIdentity, asOf: string): Promise<Operand[]> {
  const { daywork } = await chargedPosition(sql, job, asOf);
  return daywork.charge === 0 ? [] : [money('Daywork, at its charge', daywork.charge, '+', { to: inJob(job, 'charging') })];
}

/** Invoices of charged cost, less what was credited of each by the date. */
export async function dayworkInvoiced(sql: Reader, job: JobIdentity, asOf: string): Promise<Operand[]> {
  const { daywork } = await chargedPosition(sql, job, asOf);
  const rows = (await dayworkOfJob(sql, job.id, asOf)).filter((it) => it.status === 'issued');
  const invoices = rows.map((it) =>
    money(`Invoice ${it.reference} of ${it.dated}, before tax`, it.amount, '+', { to: inJob(job, 'daywork', it.reference) }),
  );
  const credited = rows.reduce((sum, it) => sum + it.amount, 0) - daywork.billed;
  return credited === 0 ? invoices : [...invoices, money('Credited, before tax', credited, '−', { to: inJob(job, 'charging') })];
}
