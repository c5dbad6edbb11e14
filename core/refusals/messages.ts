import { displayDate } from '../calendar/displayDate';
import type { Cents } from '../money/cents';
import { displayExact } from '../money/display';
import type { Refusal } from './refusal';

/** How amounts are written in a message. */
export type ShowAmount = (amount: Cents) => string;

/** The one catalogue of reasons to say no: the facts of each, and its message: what was expected, what was found, what to do. */
const MESSAGES = {
  'step-half': () => 'A retention step needs both its percentages, or neither',
  'no-retention-with-rate': () => 'There is a retention rate; clear it, or do not say that no retention was agreed',
  'finish-before-start': ({ start, finish }: { start: string; finish: string }) =>
    `The finish, ${displayDate(finish)}, is before the start, ${displayDate(start)}`,
  'defects-before-finish': ({ end, after }: { end: string; after: string }) =>
    `Liability for defects would end on ${displayDate(end)}, before ${displayDate(after)}`,
  'labour-uninstalled': () => 'Only materials can be marked as uninstalled; labour is not',
  'entry-empty': () => 'Enter an amount, or at least hours',
  'entry-reversed': ({ entry, document }: { entry: string; document: number }) =>
    `${entry} was reversed or moved already, by document ${document}`,
  'entry-reverses': ({ entry, document }: { entry: string; document: number }) =>
    `${entry} reverses a line of document ${document}; a reversal stays. Enter the right cost again instead`,
  'entry-unmoved': ({ entry }: { entry: string }) =>
    `${entry} is there already; choose another job, section, cost code or cost type`,
  'reversed-before-posted': ({ on, posted }: { on: string; posted: string }) =>
    `${displayDate(on)} is before the cost was posted, ${displayDate(posted)}; choose that day or a later one`,
  'install-not-uninstalled': ({ entry }: { entry: string }) => `Nothing of ${entry} is uninstalled`,
  'install-nothing': () => 'Enter what was installed; it cannot be zero',
  'install-beyond': ({ amount, left }: { amount: Cents; left: Cents }, show: ShowAmount) =>
    `${show(amount)} is more than the ${show(left)} not installed yet`,
  'install-beyond-quantity': ({ quantity, left }: { quantity: string; left: string }) =>
    `${quantity} is more than the ${left} not installed yet`,
  'install-no-quantity': ({ entry }: { entry: string }) => `${entry} has no quantity; enter the amount that was installed`,
  'install-before-delivery': ({ on, delivered }: { on: string; delivered: string }) =>
    `${displayDate(on)} is before the material was delivered, ${displayDate(delivered)}`,
  'posted-before-dated': ({ postedOn, dated }: { postedOn: string; dated: string }) =>
    `The accounting date, ${postedOn}, is before the document's own, ${dated}; leave it blank where they are the same`,
  'receipt-nothing': () => 'Enter the amount received; it cannot be zero',
  'receipt-too-early': ({ on, since }: { on: string; since: string }) =>
    `${displayDate(on)} is before the invoice was certified or released, ${displayDate(since)}`,
  'receipt-beyond': ({ amount, outstanding, on }: { amount: Cents; outstanding: Cents; on: string }, show: ShowAmount) =>
    `${show(amount)} is more than the ${show(outstanding)} outstanding on it on ${displayDate(on)}`,
  'receipt-below-zero': ({ amount, received, on }: { amount: Cents; received: Cents; on: string }, show: ShowAmount) =>
    `${show(received)} is received on it on ${displayDate(on)}; ${show(amount)} would bring that to ${show(received + amount)}`,
  'release-nothing': () => 'Enter an amount above zero',
  'release-beyond-held': ({ amount, held, on }: { amount: Cents; held: Cents; on: string }, show: ShowAmount) =>
    `${show(amount)} is more than the ${show(held)} held on ${displayDate(on)}`,
  'release-named-as-number': ({ reference }: { reference: string }) =>
    `"${reference}" is a number; a release needs a reference that cannot be taken for an application`,
  'certified-below-released': ({ retention, released }: { retention: Cents; released: Cents }, show: ShowAmount) =>
    `Certifying this would bring retention to date to ${show(retention)}, below the ${show(released)} already released`,
  'change-issued-early': ({ on, raised }: { on: string; raised: string }) =>
    `Issued on ${displayDate(on)} is before it was raised, ${displayDate(raised)}`,
  'change-undecided': ({ status, on }: { status: string; on: string }) =>
    `Decided on ${displayDate(on)}, and its status is ${status}; expected approved, rejected or withdrawn, or no day`,
  'change-asks-nothing': ({ number }: { number: string }) => `${number} asks for nothing yet: no price, no cost and no days`,
  'change-before-application': ({ number, application, dated }: { number: string; application: number; dated: string }) =>
    `Application ${application} of ${displayDate(dated)} is valued with the contract as it stood that day; approve ${number} on a later day`,
  'change-decided-early': ({ on, what, after }: { on: string; what: string; after: string }) =>
    `Decided on ${displayDate(on)} is before it was ${what}, ${displayDate(after)}`,
  'change-agreed-beyond': ({ asked, agreed }: { asked: Cents; agreed: Cents }, show: ShowAmount) =>
    `${show(agreed)} is not possible: expected the amount asked for, ${show(asked)}, or less; raise another change for more`,
  'certification-stays': ({ number, because }: { number: number; because: string }) =>
    `Application ${number} stays certified: ${because}`,
  'job-takes-none': ({ job, why }: { job: string; why: string }) => `Job ${job} ${why}`,
  'application-without-schedule': ({ job }: { job: string }) =>
    `Job ${job} has no schedule of values; enter its lines, or approve a change order that adds some, before it is billed`,
  'application-after-open': ({ number, status }: { number: number; status: string }) =>
    status === 'draft'
      ? `Application ${number} is a draft; submit and certify it, or delete it, before the next one is started`
      : `Application ${number} is ${status}; certify it before the next one is started`,
  'application-before-award': ({ dated, awardedOn }: { dated: string; awardedOn: string }) =>
    `${displayDate(dated)} is before the job was awarded, ${displayDate(awardedOn)}`,
  'application-out-of-order': ({ dated, number, previous }: { dated: string; number: number; previous: string }) =>
    `${displayDate(dated)} is before application ${number}, ${displayDate(previous)}; application dates must be in order`,
  'client-certifies': ({ job }: { job: string }) =>
    `The client of job ${job} certifies what is applied for; submit the application, or say at the client that it never does`,
  'invoice-named-as-number': ({ reference }: { reference: string }) =>
    `"${reference}" is a number; expected a reference that cannot be taken for an application`,
  'reference-taken': ({ reference }: { reference: string }) =>
    `There is a document "${reference}" on this job already; choose another reference`,
  'cut-off-after-date': ({ cutOff, dated }: { cutOff: string; dated: string }) =>
    `The cut-off, ${displayDate(cutOff)}, is after the day of the invoice, ${displayDate(dated)}`,
  'entry-not-charged': ({ entry, mark }: { entry: string; mark: string }) =>
    `${entry} is ${mark === 'hold' ? 'held' : 'not charged'}; mark it as charged first`,
  'entry-taken': ({ entry, invoice }: { entry: string; invoice: string }) =>
    `${entry} is on invoice ${invoice} already, which is not credited`,
  'entry-after-cut-off': ({ entry, from, cutOff }: { entry: string; from: string; cutOff: string }) =>
    `${entry} is charged from ${displayDate(from)}, after the cut-off, ${displayDate(cutOff)}`,
  'invoice-takes-nothing': () => 'Nothing is taken; choose at least one entry',
  'ceiling-passed': ({ ceiling, total, on }: { ceiling: Cents; total: Cents; on: string }, show: ShowAmount) =>
    `${show(total)} would be invoiced by ${displayDate(on)}, more than the ceiling of the job, ${show(ceiling)}; leave out ${show(total - ceiling)}, or raise the ceiling`,
  'charged-has-none': ({ job, what }: { job: string; what: string }) =>
    `Job ${job} is charged for what it costs: it has no ${what}`,
  'pricing-has-contract': ({ job, has }: { job: string; has: string }) =>
    `Job ${job} has ${has}; a job that is charged for its cost has none`,
  'ceiling-of-fixed': () => 'Only a charged job has a ceiling; leave it empty, or make the job a charged one',
  'ceiling-nothing': () => 'Expected a ceiling above zero, or none',
  'charge-without-job': () => 'Only cost on a job is charged; leave the mark empty, or choose a job',
  'charge-rate-cells': () =>
    'A charge rate is of one kind of work, one employee or one wage class, and of a job, of a client or of neither',
  'credited-already': ({ reference, on }: { reference: string; on: string }) =>
    `${reference} was credited in full on ${displayDate(on)}`,
  'credited-before-invoice': ({ on, dated }: { on: string; dated: string }) =>
    `${displayDate(on)} is before the invoice, ${displayDate(dated)}`,
  'credited-before-part': ({ on, last }: { on: string; last: string }) =>
    `${displayDate(on)} is before a credit in part, ${displayDate(last)}; choose that day or a later one`,
  'credit-nothing': () => 'Enter an amount above zero',
  'credit-beyond': ({ amount, left }: { amount: Cents; left: Cents }, show: ShowAmount) =>
    `${show(amount)} is more than the ${show(left)} of the invoice that is not credited`,
  'credit-below-received': ({ received, on }: { received: Cents; on: string }, show: ShowAmount) =>
    `${show(received)} is received on it on ${displayDate(on)}; reverse the receipt first, or credit less`,
  'charged-in-closed': ({ entry, from, closed }: { entry: string; from: string; closed: string }) =>
    `${entry} is charged from ${displayDate(from)}, and the books are closed up to ${displayDate(closed)}; what it was charged at then stays. Open them again first, or let the change count from a later day`,
  'pricing-in-closed': ({ closed }: { closed: string }) =>
    `The books are closed up to ${displayDate(closed)}, and reports of then rest on this; open them again first`,
  'mark-invoiced': ({ entry, invoice }: { entry: string; invoice: string }) =>
    `${entry} is on invoice ${invoice}; credit that in full first`,
  'application-empty': () => 'Nothing is billed on this application yet; enter the figures of at least one line',
  'application-invoiced': ({ number, invoice }: { number: number; invoice: number }) =>
    `Application ${number} already has invoice number ${invoice} and cannot be deleted. Correct it and certify it again`,
  'estimate-empty': ({ number, to }: { number: number; to: string }) =>
    `Estimate ${number} has no lines yet; there is nothing to ${to}`,
  'estimate-quoted': ({ number, quotation }: { number: number; quotation: number }) =>
    `Quotation ${quotation} is made from estimate ${number}; delete that first`,
  'estimate-settled': ({ job, status }: { job: string; status: string }) =>
    `Job ${job} is ${status}; its contract was made from the estimate chosen then`,
  'award-made': ({ job, status }: { job: string; status: string }) =>
    `Job ${job} is ${status} already; its contract changes by change order only`,
  'quotation-of-awarded': ({ job, status }: { job: string; status: string }) =>
    `Job ${job} is ${status}; what it asks for now goes out as a change order`,
  'payments-differ': ({ difference, total }: { difference: Cents; total: Cents }, show: ShowAmount) =>
    `The payment schedule leaves ${show(difference)} of the price; change it until it comes to ${show(total)}`,
  'document-reversed': ({ document, by }: { document: number; by: number }) =>
    `Document ${document} was reversed already, by document ${by}`,
  'document-irreversible': ({ why }: { why: string }) => why,
  'document-spent': ({ document }: { document: number }) => `Every line of document ${document} was reversed or moved already`,
  'release-received': () => 'Money was received on this release; reverse the receipt first',
  'certified-on-uncertified': ({ status, on }: { status: string; on: string }) =>
    `Certified on ${displayDate(on)}, and its status is ${status}; expected certified, or no day`,
  'certified-before-dated': ({ on, dated }: { on: string; dated: string }) =>
    `${displayDate(on)} is before the application's own date, ${displayDate(dated)}`,
  'certified-before-previous': ({ number, status }: { number: number; status: string }) =>
    `Applications are certified in order; application ${number} is ${status === 'draft' ? 'a draft' : status}`,
  'certified-out-of-order': ({ on, number, previous }: { on: string; number: number; previous: string }) =>
    `Applications are certified in order; ${displayDate(on)} is before application ${number} was certified, ${displayDate(previous)}`,
  'day-closed': ({ on, closedTo, open }: { on: string; closedTo: string; open: string }) =>
    `${displayDate(on)} is in the books that are closed up to ${displayDate(closedTo)}; choose ${displayDate(open)} or a later day`,
  'counts-in-closed': ({ job, awarded, closedTo, what }: { job: string; awarded: string; closedTo: string; what: string }) =>
    `Job ${job} counts from ${displayDate(awarded)} on, in books that are closed up to ${displayDate(closedTo)}; it cannot be ${what} unless the books are opened again first`,
  'closed-already': ({ to }: { to: string | null }) =>
    to === null ? 'The books are open already' : `The books are closed up to ${displayDate(to)} already`,
  'closed-ahead': ({ to, today }: { to: string; today: string }) =>
    `${displayDate(to)} is still to come; choose ${displayDate(today)} or an earlier day`,
  'opened-without-reason': () => 'Enter why the books are opened again',
  'last-owner': ({ name }: { name: string }) => `${name} is the last owner who signs in; make somebody else an owner first`,
  'hand-over-undone': ({ run, on }: { run: number; on: string }) => `Hand-over ${run} was undone on ${displayDate(on)} already`,
  'hand-over-used': ({ run, on }: { run: number; on: string }) =>
    `The file of hand-over ${run} was taken on ${displayDate(on)}: payroll may have it. Correct the hours; the next hand-over puts it right`,
  'hand-over-not-last': ({ run, last }: { run: number; last: number }) =>
    `Hand-over ${last} came after hand-over ${run}; only the last one can be undone`,
  'own-time': ({ line }: { line: string }) => `Line ${line} is your own time; somebody else approves it`,
  'entry-of-time': ({ entry }: { entry: string }) =>
    `${entry} comes from a line of time; correct time by reversing and re-entering it`,
  'far-ahead': ({ on, newest }: { on: string; newest: string }) =>
    `${displayDate(on)} is more than a year after ${displayDate(newest)}, the newest day known; check the year`,
  'job-locked': ({ job }: { job: string }) => `Job ${job} is locked; nothing posts to it until it is unlocked`,
  'job-moves-elsewhere': ({ job, status, onward }: { job: string; status: string; onward: string }) =>
    `Job ${job} is ${status}; it moves on to ${onward || 'nothing more'}`,
  'job-move-reason': ({ what }: { what: string }) => `Enter a reason: why the job is ${what}`,
  'job-move-day': ({ what }: { what: string }) => `Enter the day it was ${what}`,
  'job-finished-early': ({ on, awardedOn }: { on: string; awardedOn: string }) =>
    `Finished on ${displayDate(on)} is before the award, ${displayDate(awardedOn)}`,
  'job-posted-stays': ({ job }: { job: string }) =>
    `Something is posted to job ${job}, so it cannot be cancelled; close it out instead`,
  'transfer-uneven': ({ rest }: { rest: Cents }, show: ShowAmount) =>
    `A transfer must net to zero; this one is out by ${show(rest)}`,
  'transfer-of-nothing': () => 'Nothing is moved; enter what goes in and what goes out',
  'transfer-before-award': ({ on, awardedOn }: { on: string; awardedOn: string }) =>
    `${displayDate(on)} is before the award, ${displayDate(awardedOn)}; the original budget is frozen from then on`,
  'forecast-of-finished': ({ job }: { job: string }) =>
    `Job ${job} is finished: its cost is what was spent and what is committed; nothing is forecast on it`,
  'forecast-before-award': ({ on, job, awardedOn }: { on: string; job: string; awardedOn: string }) =>
    `${displayDate(on)} is before job ${job} was awarded, ${displayDate(awardedOn)}`,
  'setup-frozen': ({ job, because }: { job: string; because: string }) =>
    `The original schedule and budget of job ${job} are frozen: ${because}. Change orders and budget transfers alter it`,
  'not-in-this-state': ({ what, state, only }: { what: string; state: string; only: string }) =>
    `${what} is ${state === 'draft' ? 'a draft' : state}; ${only}`,
};

type FactsOf<Message extends (...facts: never[]) => string> =
  Parameters<Message> extends [] ? Record<never, never> : Parameters<Message>[0];

/** The facts of each rule. */
export type RefusalFacts = { [Rule in keyof typeof MESSAGES]: FactsOf<(typeof MESSAGES)[Rule]> };

/** A refusal in words. */
export function messageOf({ rule, facts }: Refusal, show: ShowAmount): string {
  return (MESSAGES[rule] as (facts: unknown, show: ShowAmount) => string)(facts, show);
}

/** Amounts as people read them, in a currency of so many decimals. */
export function showIn(digits: number): ShowAmount {
  return (amount) => displayExact(amount, digits);
}
