/** The next free reference of a series in a job, such as D-3 after D-1 and D-2. `taken`: all references the job has. */
export function nextReference(series: string, taken: ReadonlySet<string>): string {
  const numbers = [...taken].flatMap((it) => {
    const match = it.startsWith(`${series}-`) ? /^\d{1,9}$/.exec(it.slice(series.length + 1)) : null;
    return match ? [Number(match[0])] : [];
  });
  return `${series}-${Math.max(0, ...numbers) + 1}`;
}
