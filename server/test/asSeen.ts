import { act, reading } from './act';
import type { InstalmentsInput } from '../../wire/instalments';
import type { CheckItem, JobFacts, Person } from '../../wire/jobFile';
import type { PlanInput } from '../../wire/plan';
import { saveBillingSchedule } from '../instalments/instalments';
import { saveChecklist, saveJobFacts, savePeople } from '../jobFile/jobFile';
import { savePlan } from '../plan/plan';
import type { Database } from '../db/database';
import { digestOf } from '../versions/digest';
import { jobByNumber } from '../jobs/jobByNumber';
import { jobFileView } from '../jobFile/jobFileView';
import { loadInstalments } from '../billing/billedBySchedule';
import { planSeen } from '../plan/plannedDates';
import { TESTER } from './books';

/** Commands of one who has just looked at what they change. */
export async function savePlanAsSeen(database: Database, job: string, plan: Omit<PlanInput, 'seen'>): Promise<void> {
  const sql = reading(database);
  const seen = await planSeen(sql, (await jobByNumber(sql, job, 'job')).id);
  await act(database, TESTER, savePlan, job, { ...plan, seen });
}

export async function saveInstalmentsAsSeen(
  database: Database,
  job: string,
  instalments: InstalmentsInput['instalments'],
): Promise<void> {
  const sql = reading(database);
  const seen = digestOf(await loadInstalments(sql, (await jobByNumber(sql, job, 'job')).id));
  await act(database, TESTER, saveBillingSchedule, job, { seen, instalments });
}

export async function keepFacts(database: Database, job: string, facts: JobFacts): Promise<void> {
  const { seen } = await jobFileView(reading(database), job);
  await act(database, TESTER, saveJobFacts, job, { ...facts, seen: seen.facts });
}

export async function keepPeople(database: Database, job: string, people: Person[]): Promise<void> {
  await act(database, TESTER, savePeople, job, people, (await jobFileView(reading(database), job)).seen.people);
}

export async function keepChecklist(database: Database, job: string, items: CheckItem[]): Promise<void> {
  await act(database, TESTER, saveChecklist, job, items, (await jobFileView(reading(database), job)).seen.checklist);
}
