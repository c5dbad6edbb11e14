import { LedrinError } from '../../core/errors/ledrinError';
import type { FigureRef, Workings } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';

/** What a figure says of itself. */
export type Explained = Pick<Workings, 'rule' | 'operands' | 'entries'>;

/** What a figure is of: an application, or something else of a job, or all jobs together. */
export type FigureOf = 'application' | 'job' | 'all jobs';

export type ExplainFigure = (sql: Reader, ref: FigureRef, asOf: string) => Promise<Workings>;

/** Figures by name that explain themselves in one way. */
export interface FigureFamily {
  of: FigureOf;
  figures: readonly string[];
  explain: ExplainFigure;
}

/** The same of a job that is looked up first. Throws not-found where there is none. */
export function ofJob(
  figures: readonly string[],
  explain: (sql: Reader, job: JobIdentity, ref: FigureRef, asOf: string) => Promise<Workings>,
): FigureFamily {
  return {
    of: 'job',
    figures,
    explain: async (sql, ref, asOf) => explain(sql, await jobByNumber(sql, ref.job ?? '', 'job'), ref, asOf),
  };
}

export function unknownFigure(figure: string): LedrinError {
  return new LedrinError('not-found', `There is no figure "${figure}" to explain`);
}

export function nameOf(job: Pick<JobIdentity, 'number' | 'name'>): string {
  return `Job ${job.number} ${job.name}`;
}
