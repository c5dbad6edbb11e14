/** A count with its noun: 1 sheet, 2 sheets. */
export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}
