import type { InstalmentsInput } from '../../wire/instalments';
import type { CheckItem, JobFacts, Person } from '../../wire/jobFile';
import type { PlanInput } from '../../wire/plan';
import { saveInstalments } from '../instalments/instalments';
import { saveChecklist, saveJobFacts, savePeople } from '../jobFile/jobFile';
import { savePlan } from '../plan/plan';
import type { Database } from '../db/database';
import { digestOf } from '../versions/digest';
import { jobByNumber } from '../jobs/jobByNumber';
import { jobFileView } from '../jobFile/jobFileView';
import { loadInstalments } from '../instalments/billedBySchedule';
import { planSeen } from '../plan/planView';
import { TESTER } from './books';

/** Commands of one who has just looked at what they change. */
export async function keepPlan(database: Database, job: string, plan: Omit<PlanInput, 'seen'>): Promise<void> {
  const sql = database.read();
  const seen = await planSeen(sql, (await jobByNumber(sql, job, 'job')).id);
  await savePlan(database, TESTER, job, { ...plan, seen });
}

export async function keepInstalments(
  database: Database,
  job: string,
  instalments: InstalmentsInput['instalments'],
): Promise<void> {
  const sql = database.read();
  const seen = digestOf(await loadInstalments(sql, (await jobByNumber(sql, job, 'job')).id));
  await saveInstalments(database, TESTER, job, { seen, instalments });
}

export async function keepFacts(database: Database, job: string, facts: JobFacts): Promise<void> {
  const { seen } = await jobFileView(database.read(), job);
  await saveJobFacts(database, TESTER, job, { ...facts, seen: seen.facts });
}

export async function keepPeople(database: Database, job: string, people: Person[]): Promise<void> {
  await savePeople(database, TESTER, job, people, (await jobFileView(database.read(), job)).seen.people);
}

export async function keepChecklist(database: Database, job: string, items: CheckItem[]): Promise<void> {
  await saveChecklist(database, TESTER, job, items, (await jobFileView(database.read(), job)).seen.checklist);
}
