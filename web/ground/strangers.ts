/** What is said beside a field that names one of our own people, where nobody is called so: a wrong letter would shut somebody out. */
export function strangerHint(typed: string, people: readonly string[]): string | undefined {
  const name = typed.trim();
  return name === '' || people.includes(name) ? undefined : 'Nobody of this name is among your people or users';
}
