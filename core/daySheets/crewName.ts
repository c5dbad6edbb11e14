/** The longest name of a crew. */
export const LONGEST_CREW = 80;

/** Whether a crew can be called so, also in an address: a name of dots alone would lead elsewhere. */
export function isCrewName(text: string): boolean {
  const name = text.trim();
  return name !== '' && name.length <= LONGEST_CREW && !/^\.+$/.test(name);
}
