import { daysBetween } from '../../core/calendar/plainDate';
import { installedPart, leftUninstalled, uninstalledOn, type Delivered } from '../../core/costs/installed';
import type { PlainDate } from '../../core/calendar/plainDate';
import { present } from '../../core/errors/known';
import { takesRefusal } from '../../core/jobs/takes';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { displayExact } from '../../core/money/display';
import type { InstallInput, UninstalledRow, UninstalledView } from '../../wire/corrections';
import { loadDigits } from '../company/company';
import type { NewRow } from '../db/fields';
import type { Reader } from '../db/sql';
import { assertAllowed, assertNoFaults, faultsOf } from '../acts/refused';
import type { Command } from '../acts/command';
import { assertOpenDays } from '../ledger/closing';
import { lockedJob } from '../ledger/gate';
import { refuse } from '../../core/refusals/refusal';
import { nameOf, pickedEntries, type PostedEntry } from './entries';
import { InstallationTable } from './models';
import { INSTALLATIONS_MADE, UNINSTALLED_ENTRIES } from './queries';

/** Material that lies on site as of a date, with its age, and what was installed. */
export async function uninstalledView(sql: Reader, asOf: PlainDate, job: string | null): Promise<UninstalledView> {
  const found = await sql.all(UNINSTALLED_ENTRIES, [asOf, job]);
  const entries = new Map(
    (
      await pickedEntries(
        sql,
        found.map((it) => it.id),
      )
    ).map((it) => [it.id, it]),
  );
  const rows = found.map(({ id, job_name, unit, code_name }): UninstalledRow => {
    const it = present(entries.get(id));
    const open = leftUninstalled({ ...it, name: '' });
    return {
      entry: id,
      job: it.job,
      jobName: job_name,
      section: it.section,
      costCode: it.cost_code,
      codeName: code_name,
      postedOn: it.postedOn,
      age: daysBetween(it.postedOn, asOf),
      reference: it.reference,
      party: it.party,
      description: it.description,
      amount: it.amount,
      quantity: it.quantity,
      unit,
      left: uninstalledOn(it, asOf),
      open: open.amount,
      openQuantity: open.quantity,
    };
  });
  const made = await sql.all(INSTALLATIONS_MADE, [asOf, job]);
  return {
    rows,
    installations: made.map(({ cost_code, installed_on, ...it }) => ({ ...it, costCode: cost_code, installedOn: installed_on })),
  };
}

/** Takes material as installed from a day on: whole entries, or a part of each. All of it, or none. */
export async function install({ sql, note }: Command, { on, parts }: InstallInput): Promise<{ amount: number }> {
  await assertOpenDays(sql, [on], 'on');
  const digits = await loadDigits(sql);
  const entries = new Map(
    (
      await pickedEntries(
        sql,
        parts.map((it) => it.entry),
      )
    ).map((it) => [it.id, it]),
  );
  const faults: Fault[] = [];
  const rows: NewRow<typeof InstallationTable>[] = [];
  for (const [i, { entry: id, ...asked }] of parts.entries()) {
    const entry = entries.get(id);
    const at = (field: string) => `parts.${i}.${field}`;
    if (!entry) {
      faults.push({ field: at('entry'), message: `There is no cost entry ${id}` });
      continue;
    }
    const refusals = whyNotInstalled(entry);
    const made = installedPart(delivered(entry), { on, ...asked });
    if ('refusal' in made) refusals.push(made.refusal);
    faults.push(...faultsOf(refusals, digits, { entry: at('entry'), amount: at('amount'), quantity: at('quantity') }));
    if (!('part' in made)) continue;
    const { amount, quantity } = made.part;
    // The next part of the same entry, if it is asked for, starts from here.
    entries.set(id, { ...entry, installations: [...entry.installations, made.part] });
    rows.push({ cost_entry_id: id, job_id: entry.job_id, installed_on: on, amount, quantity });
    note(`posting ${entry.posting_id}`, { entry: id, job: entry.job, installed: amount, on });
  }
  assertNoFaults(faults);
  assertAllowed(
    [
      await lockedJob(
        sql,
        rows.map((it) => it.job_id),
      ),
    ],
    { code: 'refused' },
  );
  await sql.insertAll(InstallationTable, rows);
  return { amount: rows.reduce((sum, it) => sum + it.amount, 0) };
}

/** Undoes an installation, as if it had not been: the material lies uninstalled again from its delivery on. */
export async function undoInstallation({ sql, actor, note }: Command, id: number): Promise<void> {
  const row = await sql.findOne(InstallationTable, { id });
  if (!row) throw new LedrinError('not-found', `There is no installation ${id}`);
  if (row.undone_at !== null) throw new LedrinError('refused', 'This was undone already');
  const [entry] = await pickedEntries(sql, [row.cost_entry_id]);
  await assertOpenDays(sql, [row.installed_on], 'id');
  assertAllowed([await lockedJob(sql, [row.job_id]), ...(entry ? whyNotInstalled(entry) : [])], { code: 'refused' });
  await sql.update(InstallationTable, { id }, { undone_at: actor.at });
  note(`posting ${present(entry).posting_id}`, {
    entry: row.cost_entry_id,
    on: row.installed_on,
    undone: displayExact(row.amount, await loadDigits(sql)),
  });
}

/** What was reversed or moved is corrected where it stands now. */
function whyNotInstalled(entry: PostedEntry) {
  const name = nameOf(entry);
  const refusals = [
    ...(entry.reversed_by === null ? [] : [refuse('entry-reversed', 'entry', { entry: name, document: entry.reversed_by })]),
    ...(entry.reverses === null ? [] : [refuse('entry-reverses', 'entry', { entry: name, document: entry.reverses })]),
    takesRefusal({ number: entry.job, status: entry.status, locked: false }, 'cost', 'entry'),
  ];
  return refusals.filter((it) => it !== null);
}

function delivered(entry: PostedEntry): Delivered {
  return { ...entry, name: nameOf(entry) };
}
