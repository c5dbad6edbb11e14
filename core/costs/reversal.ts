import type { PlainDate } from '../calendar/plainDate';

/** The part of a cost entry that says whether it counts as uninstalled material. */
export interface InstalledState {
  uninstalled: boolean;
  installedOn: PlainDate | null;
}

/**
 * How the reversal of an entry, dated `on`, is flagged. It must take exactly as much off uninstalled
 * material as the entry still adds on every later day; what is installed by then adds nothing.
 */
export function reversedInstalledState(entry: InstalledState, on: PlainDate): InstalledState {
  if (!entry.uninstalled || (entry.installedOn !== null && entry.installedOn <= on))
    return { uninstalled: false, installedOn: null };
  return entry;
}
