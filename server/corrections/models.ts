import { t, table, view } from '../db/fields';

/** A part of an uninstalled entry that was installed: it counts from its day on, until it is undone. */
export const InstallationTable = table('installation', {
  id: t.id,
  cost_entry_id: t.ref('cost_entry'),
  job_id: t.ref('job'),
  installed_on: t.day,
  amount: t.cents,
  quantity: t.orNull(t.quantity),
  undone_at: t.orNull(t.moment),
});

/** Each part of an entry that is installed, and what is left of it: what a book has a row for. */
export const InstalledPartView = view('installed_part', {
  cost_entry_id: t.whole,
  installed_on: t.orNull(t.day),
  amount: t.cents,
  quantity: t.orNull(t.quantity),
  hours: t.orNull(t.hours),
});
