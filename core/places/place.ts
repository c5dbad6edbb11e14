/** Parts of a job that a figure or a next step leads to. */
export type JobPlace =
  | 'contract'
  | 'set-up'
  | 'budget'
  | 'costs'
  | 'material-on-site'
  | 'billing'
  | 'billing-schedule'
  | 'charging'
  | 'daywork'
  | 'application'
  | 'changes'
  | 'change'
  | 'estimates'
  | 'estimate'
  | 'award'
  | 'quotation'
  | 'job-file';

/** A place in the product, named. Its address is the web's affair (web/ground/addressOf.ts). */
export type Place =
  | {
      place: JobPlace;
      job: string;
      /** Number of the document, where the place is one. */
      document?: string;
      /** What the list there is narrowed to. */
      filter?: Readonly<Record<string, string>>;
    }
  | { place: 'posting'; document: string }
  | { place: 'approval'; document: string }
  | { place: 'week-sheet'; document: string }
  /** A new week sheet, of the week that begins on the day. */
  | { place: 'week'; document: string };

/** A part of a job, or one of its documents. */
export function inJob(job: { number: string }, place: JobPlace, document?: string | number): Place {
  return { place, job: job.number, ...(document === undefined ? {} : { document: String(document) }) };
}

/** A job's cost ledger, narrowed. */
export function entriesOf(job: { number: string }, filter: Readonly<Record<string, string>>): Place {
  return { place: 'costs', job: job.number, filter };
}

/** A posted document. */
export function postingPlace(id: number): Place {
  return { place: 'posting', document: String(id) };
}
