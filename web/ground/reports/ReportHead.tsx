import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useAsOf } from '../asOf';
import { useMay } from '../person';
import { PageHead } from '../../kit/PageHead';

/** The head of a report: which one it is, and the ways to take it along. */
export function ReportHead({ title, name, job }: { title: string; name: string; job?: string }) {
  return (
    <PageHead title={title}>
      <Downloads name={name} job={job} />
    </PageHead>
  );
}

/** A report as CSV, XLSX and PDF. */
export function Downloads({ name, job }: { name: string; job?: string }) {
  const { asOf } = useAsOf();
  const may = useMay();
  if (!may('export:reportFile')) return null;
  return (
    <span className="flex gap-2" role="group" aria-label="Download">
      {['csv', 'xlsx', 'pdf'].map((format) => (
        <a
          key={format}
          className="button"
          href={hrefOf(CALLS.reportFile, { name, format, asOf, ...(job === undefined ? {} : { job }) })}
          download
        >
          {format.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
