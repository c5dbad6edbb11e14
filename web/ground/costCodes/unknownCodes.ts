/** Codes typed that the company does not have, each once, in the order they were typed in. */
export function unknownCodes(typed: readonly (string | undefined)[], known: ReadonlySet<string>): string[] {
  const codes = typed.map((it) => (it ?? '').trim());
  return [...new Set(codes.filter((code) => code !== '' && !known.has(code)))];
}
