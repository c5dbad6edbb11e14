import { APPROVAL_NAMES } from '../../core/approvals/approvals';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { AbsenceInput, AbsenceRow, ApprovalRulesInput } from '../../wire/approvals';
import type { Reader } from '../db/sql';
import { assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import type { SignedIn } from '../acts/signedIn';
import { UserTable } from '../users/models';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { AbsenceTable, ApprovalRuleTable } from './models';
import { ABSENCES_OF, DEPUTIES } from './queries';
import { rulesOf } from './requireApproval';

/** The company's rules, in the order of the kinds. */
export async function approvalRules(sql: Reader): Promise<{ seen: string; rules: ApprovalRulesInput['rules'] }> {
  const rules = await rulesOf(sql);
  const inOrder = APPROVAL_NAMES.flatMap((kind) => rules.filter((it) => it.kind === kind));
  return { seen: digestOf(inOrder), rules: inOrder };
}

/** Lays down what is approved by whom; it holds from the next act on. */
export async function saveApprovalRules(command: Command, { seen, rules }: ApprovalRulesInput): Promise<void> {
  const { sql } = command;
  const was = await approvalRules(sql);
  await assertUnchanged(command, 'The rules of approval', { subject: 'approval rules', now: was.rules, seen });
  const faults: Fault[] = rules.flatMap((it, i) =>
    rules.findIndex((other) => other.kind === it.kind && other.above === it.above) === i
      ? []
      : [{ field: `rules.${i}.above`, message: 'There is a rule for this act and amount already; change one of them' }],
  );
  assertNoFaults(faults);
  await sql.remove(ApprovalRuleTable, {});
  await sql.insertAll(ApprovalRuleTable, rules);
  command.note('approval rules', { was: was.rules, now: rules });
}

/** When somebody is away and who stands in, and who could. */
export async function absencesOf(sql: Reader, person: SignedIn): Promise<{ absences: AbsenceRow[]; deputies: string[] }> {
  return {
    absences: await sql.all(ABSENCES_OF, [person.id]),
    deputies: (await sql.all(DEPUTIES, [person.id])).map((it) => it.name),
  };
}

/** Names who approves in somebody's stead on the days they are away. */
export async function addAbsence(command: Command, { from, to, deputy }: AbsenceInput, person: SignedIn): Promise<void> {
  const { sql } = command;
  if (!(await sql.findOne(UserTable, { id: person.id })))
    throw new LedrinError('not-found', 'You are no user any more; sign in again');
  const found = (await sql.all(DEPUTIES, [person.id])).some((it) => it.name === deputy);
  assertNoFaults([
    ...(found ? [] : [{ field: 'deputy', message: `${deputy} cannot stand in for you; choose one of the list` }]),
    ...(to < from ? [{ field: 'to', message: `${to} is before the first day, ${from}` }] : []),
  ]);
  const user = await sql.findOne(UserTable, { name: deputy });
  if (user) await sql.insert(AbsenceTable, { user_id: person.id, deputy_id: user.id, from_day: from, to_day: to });
  command.note(`user ${person.name}`, { from, to, deputy });
}

/** Takes back one of one's own absences. */
export async function endAbsence(command: Command, id: number, person: SignedIn): Promise<void> {
  const [absence] = await command.sql.find(AbsenceTable, { id, user_id: person.id });
  if (!absence) throw new LedrinError('not-found', 'This absence is not there any more; reload the page');
  await command.sql.remove(AbsenceTable, { id });
  command.note(`user ${person.name}`, { from: absence.from_day, to: absence.to_day });
}
