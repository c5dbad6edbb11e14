import { JOB_GROUPS } from '../../../../core/jobs/jobGroups';
import type { JobListRow } from '../../../../wire/jobs';
import { MeasureKey } from '../../../kit/Measure';
import { Choice } from '../../../kit/choice/Choice';
import type { Option } from '../../../kit/choice/options';
import type { JobFilter, JobFilterKey } from './useJobFilter';

/** What the list of jobs is narrowed to. */
export function JobFilters({ jobs, view }: { jobs: readonly JobListRow[]; view: JobFilter }) {
  const distinct = (value: (job: JobListRow) => string) =>
    [...new Set(jobs.map(value))]
      .filter(Boolean)
      .sort()
      .map((it) => [it, it] as const);
  const clients = [...new Map(jobs.map((job) => [job.client, job.clientName]))];
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <input
        className="box w-[180px]"
        type="search"
        placeholder="Find a job"
        aria-label="Find a job"
        value={view.q}
        onChange={(event) => view.set('q', event.target.value)}
      />
      <Pick label="Status" of="status" view={view} options={distinct((job) => job.status)} />
      <Pick label="Manager" of="manager" view={view} options={distinct((job) => job.manager)} />
      <Pick label="Client" of="client" view={view} options={clients} />
      {(['department', 'kind'] as const).map((of) => {
        const options = distinct((job) => job[of]);
        return options.length > 0 && <Pick key={of} label={JOB_GROUPS[of].title} of={of} view={view} options={options} />;
      })}
      <span className="ml-auto">
        <MeasureKey />
      </span>
    </div>
  );
}

function Pick({ label, of, view, options }: { label: string; of: JobFilterKey; view: JobFilter; options: readonly Option[] }) {
  return (
    <Choice
      aria-label={label}
      className="box w-[150px]"
      value={view[of]}
      options={[['', `${label}: all`], ...options]}
      onChange={(chosen) => view.set(of, chosen)}
    />
  );
}
