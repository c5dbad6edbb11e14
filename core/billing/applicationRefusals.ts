import type { PlainDate } from '../calendar/plainDate';
import { takesRefusal, whyNotTaken, type TakingJob } from '../jobs/takes';
import { moveRefusal } from '../life/life';
import { refuse, type Refusal } from '../refusals/refusal';
import type { Application } from './application';
import { APPLICATION_LIFE, type ApplicationMove } from './applicationLife';
import { certificationStays, type AfterCertification } from './certificationStays';

/** A job as far as its applications in order go. */
export interface BilledJob {
  number: string;
  awardedOn: PlainDate | null;
}

/** An application in the order of its job's. */
export type PlacedApplication = Pick<Application, 'number' | 'dated' | 'status' | 'certifiedOn'>;

const isBefore = (a: PlainDate | null, b: PlainDate | null) => a !== null && b !== null && a < b;

/**
 * Why a job takes no application, or no next one: its state, a schedule of values without a line, or one before it that is not certified
 * yet. docs/rules.md §6.
 */
export function startRefusals(
  job: { number: string; status: string; locked: boolean; isCharged?: boolean; sovLines: readonly unknown[] },
  previous: PlacedApplication | undefined,
): Refusal[] {
  const why = whyNotTaken(job, 'bills');
  if (why !== null) return [refuse('job-takes-none', 'job', { job: job.number, why })];
  if (job.isCharged) return [refuse('charged-has-none', 'job', { job: job.number, what: 'application for payment' })];
  if (job.sovLines.length === 0) return [refuse('application-without-schedule', 'job', { job: job.number })];
  if (previous && previous.status !== 'certified')
    return [refuse('application-after-open', 'number', { number: previous.number, status: previous.status })];
  return [];
}

/** Why an application cannot be dated so: before the job was awarded, or before the one it follows. */
export function applicationDateRefusals(
  { awardedOn }: BilledJob,
  dated: PlainDate,
  previous: PlacedApplication | undefined,
): Refusal[] {
  const refusals: Refusal[] = [];
  if (awardedOn !== null && dated < awardedOn) refusals.push(refuse('application-before-award', 'dated', { dated, awardedOn }));
  if (previous && dated < previous.dated)
    refusals.push(refuse('application-out-of-order', 'dated', { dated, number: previous.number, previous: previous.dated }));
  return refusals;
}

/** Why an application is not certified so: only after its own date, and in order. */
export function certifiedOnRefusals(application: PlacedApplication, previous: PlacedApplication | undefined): Refusal[] {
  const { dated, status, certifiedOn } = application;
  const refusals: Refusal[] = [];
  if (status !== 'certified' && certifiedOn !== null)
    refusals.push(refuse('certified-on-uncertified', 'certifiedOn', { status, on: certifiedOn }));
  if (certifiedOn !== null && certifiedOn < dated)
    refusals.push(refuse('certified-before-dated', 'certifiedOn', { on: certifiedOn, dated }));
  if (!previous || status !== 'certified') return refusals;
  if (previous.status !== 'certified')
    refusals.push(refuse('certified-before-previous', 'status', { number: previous.number, status: previous.status }));
  else if (certifiedOn !== null && previous.certifiedOn !== null && isBefore(certifiedOn, previous.certifiedOn))
    refusals.push(
      refuse('certified-out-of-order', 'certifiedOn', {
        on: certifiedOn,
        number: previous.number,
        previous: previous.certifiedOn,
      }),
    );
  return refusals;
}

/** An application as far as its moves go. */
export interface MovingApplication {
  number: number;
  status: Application['status'];
  job: TakingJob & { number: string };
  hasLines: boolean;
  /** The number of its invoice, which stays its own when the certification is reversed. */
  invoice: number | null;
  previous: PlacedApplication | undefined;
  /** What is applied for stands: the client never certifies. */
  neverCertifies: boolean;
  /** What happened since it was certified; null where it is not. */
  after: AfterCertification | null;
}

/** Why an application cannot make a move of its life: its job is not billed, its state, or what it rests on. docs/rules.md §6. */
export function applicationRefusal(move: ApplicationMove, it: MovingApplication): Refusal | null {
  const jobRefusal = takesRefusal(it.job, move === 'receive' ? 'receipts' : 'bills');
  return jobRefusal ?? moveRefusal(APPLICATION_LIFE, move, `Application ${it.number}`, it.status) ?? withinState(move, it);
}

function withinState(move: ApplicationMove, it: MovingApplication): Refusal | null {
  const { number, hasLines, invoice, previous, neverCertifies, after } = it;
  switch (move) {
    case 'submit':
      return hasLines ? null : refuse('application-empty', 'lines', {});
    case 'delete':
      return invoice === null ? null : refuse('application-invoiced', 'number', { number, invoice });
    case 'bill':
      if (!neverCertifies) return refuse('client-certifies', 'job', { job: it.job.number });
      return withinState('submit', it) ?? withinState('certify', it);
    case 'certify':
      return previous && previous.status !== 'certified'
        ? refuse('certified-before-previous', 'status', { number: previous.number, status: previous.status })
        : null;
    case 'uncertify':
      return after && certificationStays(after);
    case 'edit':
    case 'return':
    case 'receive':
      return null;
  }
}
