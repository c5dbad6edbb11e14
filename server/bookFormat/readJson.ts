/** True where a text is not JSON, or holds something else than `is` says. */
export function isNotJson(text: string, is: (read: unknown) => boolean): boolean {
  try {
    return !is(JSON.parse(text));
  } catch {
    return true;
  }
}
