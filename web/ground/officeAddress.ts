/** Where the office reads a day sheet. */
export function officeAddress({ job, dated, crew }: { job: string; dated: string; crew: string }): string {
  return `/costs/day-sheets/${encodeURIComponent(job)}/${dated}/${encodeURIComponent(crew)}`;
}
