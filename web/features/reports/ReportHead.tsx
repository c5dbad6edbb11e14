import { useAsOf } from '../../ground/asOf';
import { ReportNav } from '../../ground/ReportNav';

/** The head of a report: which one it is, the others, and the ways to take it along. */
export function ReportHead({ title, name, job }: { title: string; name: string; job?: string }) {
  const { month } = useAsOf();
  const query = new URLSearchParams({ asOf: month, ...(job ? { job } : {}) });
  return (
    <>
      <ReportNav />
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>{title}</h1>
        <Downloads name={name} query={query} />
      </div>
    </>
  );
}

/** A report as CSV, XLSX and PDF. */
export function Downloads({ name, query }: { name: string; query: URLSearchParams }) {
  return (
    <span className="flex gap-2" role="group" aria-label="Download">
      {['csv', 'xlsx', 'pdf'].map((format) => (
        <a key={format} className="press" href={`/api/reports/${name}.${format}?${query}`} download>
          {format.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
