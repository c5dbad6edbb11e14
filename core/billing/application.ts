import { at } from '../errors/known';
import { LAST_DAY, type PlainDate } from '../calendar/plainDate';
import {
  contractSum,
  originalContractSum,
  scheduleAt,
  type PriceChange,
  type ScheduledLine,
  type SovLine,
} from '../contract/contract';
import { sum, type Cents } from '../money/cents';
import type { Rate } from '../money/rate';
import { totalsOf, type Totals, type TotalsBasis } from './totals';
import { retentionToDate, type Retention, type RetentionRule } from './retention';

export const APPLICATION_STATUSES = ['draft', 'submitted', 'certified'] as const;
export type ApplicationStatus = (typeof APPLICATION_STATUSES)[number];

/** What one line states to date. Certified figures that are null mean: as applied. */
export interface BilledLine {
  line: string;
  work: Cents;
  materials: Cents;
  certifiedWork: Cents | null;
  certifiedMaterials: Cents | null;
}

/** An application for payment as saved: every amount is to date. */
export interface Application {
  number: number;
  dated: PlainDate;
  status: ApplicationStatus;
  /** The day it was certified; null until then. */
  certifiedOn: PlainDate | null;
  reference: string;
  /** By how much, over all lines, it may pass their scheduled values, as somebody with the right said: a positive amount. Nothing: not at all. */
  above?: Cents;
  lines: readonly BilledLine[];
}

export interface RetentionRelease {
  reference: string;
  dated: PlainDate;
  /** Before tax. */
  amount: Cents;
}

/** All that billing needs to know of one job. `sovLines` and `applications` in their own order. */
export interface BillingJob {
  sovLines: readonly SovLine[];
  priceChanges: readonly PriceChange[];
  retention: RetentionRule;
  taxRate: Rate;
  applications: readonly Application[];
  releases: readonly RetentionRelease[];
}

/** One SOV line of an application, valued. Everything but `previousWork` and `thisPeriod` is to date. */
export interface ValuedLine extends ScheduledLine {
  /** Work done by the last certified application before it. */
  previousWork: Cents;
  work: Cents;
  materials: Cents;
  toDate: Cents;
  /** Work done since, without materials on site. */
  thisPeriod: Cents;
  retention: Cents;
  /** As applied for, where less was certified. */
  appliedWork: Cents;
  appliedMaterials: Cents;
}

/** An application with every figure of docs/rules.md §6 worked out. */
export interface ValuedApplication extends TotalsBasis, Totals {
  number: number;
  dated: PlainDate;
  lines: ValuedLine[];
  originalContractSum: Cents;
  retention: Retention;
  previousNumber: number | null;
  certified: boolean;
}

/** True once `application` is certified, as of `asOf`. */
export function isCertifiedAt(application: Pick<Application, 'status' | 'certifiedOn'>, asOf: PlainDate): boolean {
  return application.status === 'certified' && application.certifiedOn !== null && application.certifiedOn <= asOf;
}

/**
 * The day a screen values an application at. A certified one shows what was known on the screen's date; one that is
 * still in work always stands against everything certified so far, whatever month is looked at.
 */
export function screenDate(application: Pick<Application, 'status'>, asOf: PlainDate): PlainDate {
  return application.status === 'certified' ? asOf : LAST_DAY;
}

/** The last application certified on or before `asOf` with a number below `before`; null where there is none. */
export function lastCertified(applications: readonly Application[], asOf: PlainDate, before = Infinity): Application | null {
  return applications.filter((it) => it.number < before && isCertifiedAt(it, asOf)).at(-1) ?? null;
}

/**
 * Values one application: with the contract as it stood on the application's own date, whatever day it is
 * looked at; with certified figures once certified by `asOf`, with applied ones until then. docs/rules.md §6.
 */
export function valueApplication(job: BillingJob, application: Application, asOf: PlainDate): ValuedApplication {
  const certified = isCertifiedAt(application, asOf);
  const previous = lastCertified(job.applications, asOf, application.number);
  const { schedule, stated, retention, ...state } = statedToDate(job, application, certified);
  const before = previous ? certifiedToDate(job, previous) : { gross: 0, retention: 0 };
  const previousWork = new Map(previous?.lines.map((line) => [line.line, certifiedWork(line)]));
  const basis = {
    contractSum: state.contractSum,
    retentionReleased: amountBy(job.releases, application.dated),
    previouslyCertified: before.gross - before.retention,
    taxRate: job.taxRate,
  };
  const lines = schedule.map((line, i): ValuedLine => {
    const { work, materials, appliedWork, appliedMaterials } = at(stated, i);
    const previouslyDone = previousWork.get(line.line) ?? 0;
    return {
      ...line,
      previousWork: previouslyDone,
      work,
      materials,
      toDate: work + materials,
      thisPeriod: work - previouslyDone,
      retention: at(retention.byLine, i),
      appliedWork,
      appliedMaterials,
    };
  });
  return {
    number: application.number,
    dated: application.dated,
    lines,
    originalContractSum: originalContractSum(job.sovLines),
    retention,
    previousNumber: previous?.number ?? null,
    certified,
    ...basis,
    ...totalsOf(basis, lines, retention),
  };
}

/** What of `moved`, such as receipts on an invoice or releases of retention before tax, is dated on or before `on`. */
export function amountBy(moved: readonly { dated: PlainDate; amount: Cents }[], on: PlainDate): Cents {
  return sum(moved.filter((it) => it.dated <= on).map((it) => it.amount));
}

/** Retention held on `asOf`: retention to date of the last certified application, less what was released. */
export function retentionHeld(job: BillingJob, asOf: PlainDate): Cents {
  const last = lastCertified(job.applications, asOf);
  return (last ? certifiedToDate(job, last).retention : 0) - amountBy(job.releases, asOf);
}

export function certifiedWork(line: BilledLine): Cents {
  return line.certifiedWork ?? line.work;
}

export function certifiedMaterials(line: BilledLine): Cents {
  return line.certifiedMaterials ?? line.materials;
}

/** What a certified application states to date, before tax. */
export function certifiedToDate(job: BillingJob, application: Application): { gross: Cents; retention: Cents } {
  const { stated, retention } = statedToDate(job, application, true);
  return { gross: sum(stated.map((line) => line.work + line.materials)), retention: retention.total };
}

/** What an application states by line of the schedule of its own date, certified or as applied, and the retention on it. */
function statedToDate(job: BillingJob, application: Application, certified: boolean) {
  const schedule = scheduleAt(job.sovLines, job.priceChanges, application.dated);
  const billed = new Map(application.lines.map((line) => [line.line, line]));
  const stated = schedule.map((line) => {
    const of = billed.get(line.line) ?? NOTHING_BILLED;
    const work = certified ? certifiedWork(of) : of.work;
    const materials = certified ? certifiedMaterials(of) : of.materials;
    return { work, materials, rate: line.retentionRate, appliedWork: of.work, appliedMaterials: of.materials };
  });
  const total = contractSum(schedule);
  return { schedule, stated, contractSum: total, retention: retentionToDate(job.retention, total, stated) };
}

const NOTHING_BILLED: BilledLine = { line: '', work: 0, materials: 0, certifiedWork: null, certifiedMaterials: null };
