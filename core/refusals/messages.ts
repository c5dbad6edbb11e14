import { displayDate } from '../calendar/displayDate';
import type { Cents } from '../money/cents';
import { displayExact } from '../money/display';
import type { Refusal, RefusalFacts, RefusalRule } from './refusal';

/** How amounts are written in a message. */
export type ShowAmount = (amount: Cents) => string;

/** The one catalogue of messages: what was expected, what was found, what to do. */
const MESSAGES: { [Rule in RefusalRule]: (facts: RefusalFacts[Rule], show: ShowAmount) => string } = {
  'step-half': () => 'A retention step needs both its percentages, or neither',
  'no-retention-with-rate': () => 'There is a retention rate; clear it, or do not say that no retention was agreed',
  'finish-before-start': ({ start, finish }) => `The finish, ${displayDate(finish)}, is before the start, ${displayDate(start)}`,
  'defects-before-finish': ({ end, after }) =>
    `Liability for defects would end on ${displayDate(end)}, before ${displayDate(after)}`,
  'labour-uninstalled': () => 'Only materials can be marked as uninstalled; labour is not',
  'entry-empty': () => 'Enter an amount, or at least hours',
  'entry-reversed': ({ entry, document }) => `${entry} was reversed or moved already, by document ${document}`,
  'entry-reverses': ({ entry, document }) =>
    `${entry} reverses a line of document ${document}; a reversal stays. Enter the right cost again instead`,
  'entry-unmoved': ({ entry }) => `${entry} is there already; choose another job, section, cost code or cost type`,
  'reversed-before-posted': ({ on, posted }) =>
    `${displayDate(on)} is before the cost was posted, ${displayDate(posted)}; choose that day or a later one`,
  'install-not-uninstalled': ({ entry }) => `Nothing of ${entry} is uninstalled`,
  'install-nothing': () => 'Enter what was installed; it cannot be zero',
  'install-beyond': ({ amount, left }, show) => `${show(amount)} is more than the ${show(left)} not installed yet`,
  'install-beyond-quantity': ({ quantity, left }) => `${quantity} is more than the ${left} not installed yet`,
  'install-no-quantity': ({ entry }) => `${entry} has no quantity; enter the amount that was installed`,
  'install-before-delivery': ({ on, delivered }) =>
    `${displayDate(on)} is before the material was delivered, ${displayDate(delivered)}`,
  'posted-before-dated': ({ postedOn, dated }) =>
    `The accounting date, ${postedOn}, is before the document's own, ${dated}; leave it blank where they are the same`,
  'receipt-nothing': () => 'Enter the amount received; it cannot be zero',
  'receipt-too-early': ({ on, since }) =>
    `${displayDate(on)} is before the invoice was certified or released, ${displayDate(since)}`,
  'receipt-beyond': ({ amount, outstanding, on }, show) =>
    `${show(amount)} is more than the ${show(outstanding)} outstanding on it on ${displayDate(on)}`,
  'receipt-below-zero': ({ amount, received, on }, show) =>
    `${show(received)} is received on it on ${displayDate(on)}; ${show(amount)} would bring that to ${show(received + amount)}`,
  'release-nothing': () => 'Enter an amount above zero',
  'release-beyond-held': ({ amount, held, on }, show) =>
    `${show(amount)} is more than the ${show(held)} held on ${displayDate(on)}`,
  'release-named-as-number': ({ reference }) =>
    `"${reference}" is a number; a release needs a reference that cannot be taken for an application`,
  'certified-below-released': ({ retention, released }, show) =>
    `Certifying this would bring retention to date to ${show(retention)}, below the ${show(released)} already released`,
  'change-issued-early': ({ on, raised }) => `Issued on ${displayDate(on)} is before it was raised, ${displayDate(raised)}`,
  'change-undecided': ({ status, on }) =>
    `Decided on ${displayDate(on)}, and its status is ${status}; expected approved, rejected or withdrawn, or no day`,
  'change-decided-early': ({ on, what, after }) =>
    `Decided on ${displayDate(on)} is before it was ${what}, ${displayDate(after)}`,
  'change-agreed-beyond': ({ asked, agreed }, show) =>
    `${show(agreed)} is not possible: expected the amount asked for, ${show(asked)}, or less; raise another change for more`,
  'certification-stays': ({ number, because }) => `Application ${number} stays certified: ${because}`,
  'job-takes-none': ({ job, why }) => `Job ${job} ${why}`,
  'application-without-schedule': ({ job }) =>
    `Job ${job} has no schedule of values; enter its lines, or approve a change order that adds some, before it is billed`,
  'application-after-open': ({ number, status }) =>
    status === 'draft'
      ? `Application ${number} is a draft; submit and certify it, or delete it, before the next one is started`
      : `Application ${number} is ${status}; certify it before the next one is started`,
  'application-before-award': ({ dated, awardedOn }) =>
    `${displayDate(dated)} is before the job was awarded, ${displayDate(awardedOn)}`,
  'application-out-of-order': ({ dated, number, previous }) =>
    `${displayDate(dated)} is before application ${number}, ${displayDate(previous)}; application dates must be in order`,
  'certified-on-uncertified': ({ status, on }) =>
    `Certified on ${displayDate(on)}, and its status is ${status}; expected certified, or no day`,
  'certified-before-dated': ({ on, dated }) => `${displayDate(on)} is before the application's own date, ${displayDate(dated)}`,
  'certified-before-previous': ({ number, status }) =>
    `Applications are certified in order; application ${number} is ${status === 'draft' ? 'a draft' : status}`,
  'certified-out-of-order': ({ on, number, previous }) =>
    `Applications are certified in order; ${displayDate(on)} is before application ${number} was certified, ${displayDate(previous)}`,
  'day-closed': ({ on, closedTo, open }) =>
    `${displayDate(on)} is in the books that are closed up to ${displayDate(closedTo)}; choose ${displayDate(open)} or a later day`,
  'closed-already': ({ to }) =>
    to === null ? 'The books are open already' : `The books are closed up to ${displayDate(to)} already`,
  'closed-ahead': ({ to, today }) => `${displayDate(to)} is still to come; choose ${displayDate(today)} or an earlier day`,
  'opened-without-reason': () => 'Enter why the books are opened again',
  'last-owner': ({ name }) => `${name} is the last owner who signs in; make somebody else an owner first`,
  'own-time': ({ line }) => `Line ${line} is your own time; somebody else approves it`,
  'entry-of-time': ({ entry }) => `${entry} comes from a line of time; correct time by reversing and re-entering it`,
  'far-ahead': ({ on, newest }) =>
    `${displayDate(on)} is more than a year after ${displayDate(newest)}, the newest day known; check the year`,
  'job-locked': ({ job }) => `Job ${job} is locked; nothing posts to it until it is unlocked`,
  'setup-frozen': ({ job, because }) =>
    `The original schedule and budget of job ${job} are frozen: ${because}. Change orders and budget transfers alter it`,
  'not-in-this-state': ({ what, state, only }) => `${what} is ${state === 'draft' ? 'a draft' : state}; ${only}`,
};

/** A refusal in words. */
export function messageOf({ rule, facts }: Refusal, show: ShowAmount): string {
  return (MESSAGES[rule] as (facts: unknown, show: ShowAmount) => string)(facts, show);
}

/** Amounts as people read them, in a currency of so many decimals. */
export function showIn(digits: number): ShowAmount {
  return (amount) => displayExact(amount, digits);
}
