import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useAsOf } from '../asOf';
import { useMay } from '../person';
import type { OverJobs } from './JobGroups';
import { PageHead } from '../../kit/PageHead';

interface Of {
  name: string;
  job?: string;
  /** The first day, of a report over a time. */
  from?: string;
  /** Grouped and narrowed as the page shows it. */
  over?: OverJobs;
}

/** The head of a report: which one it is, and the ways to take it along. */
export function ReportHead({ title, ...of }: Of & { title: string }) {
  return (
    <PageHead title={title}>
      <Downloads {...of} />
    </PageHead>
  );
}

/** A report as CSV, XLSX and PDF. */
export function Downloads({ name, job, from, over = {} }: Of) {
  const { asOf } = useAsOf();
  const may = useMay();
  if (!may('export:reportFile')) return null;
  return (
    <span className="flex gap-2" role="group" aria-label="Download">
      {['csv', 'xlsx', 'pdf'].map((format) => (
        <a
          key={format}
          className="button"
          href={hrefOf(CALLS.reportFile, {
            name,
            format,
            asOf,
            ...(job === undefined ? {} : { job }),
            ...(from === undefined ? {} : { from }),
            ...over,
          })}
          download
        >
          {format.toUpperCase()}
        </a>
      ))}
    </span>
  );
}
