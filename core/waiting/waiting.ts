import { displayDate } from '../calendar/displayDate';
import { inJob, type Place } from '../places/place';
import type { Right } from '../rights/rights';

/** A document that waits for somebody. */
export interface WaitingDocument {
  job: string;
  /** Its number. */
  document: string;
  /** What it is about, where its number does not say it. */
  about?: string;
}

interface WaitingKind {
  /** Whoever has this right can do it. */
  who: Right;
  /** What is to be done, of one and of several. */
  todo: readonly [one: string, many: string];
  /** What one of them is called on the list. */
  named: (it: WaitingDocument) => string;
  to: (it: WaitingDocument) => Place;
}

const application = (it: WaitingDocument) => `Application ${it.document}`;
const toApplication = (it: WaitingDocument) => inJob({ number: it.job }, 'application', it.document);
const change = (it: WaitingDocument) => `Change order ${it.document}`;
const toChange = (it: WaitingDocument) => inJob({ number: it.job }, 'change', it.document);

const approval = (it: WaitingDocument) => `Approval for ${it.about ?? it.document}`;
const toApproval = (it: WaitingDocument): Place => ({ place: 'approval', document: it.document });

const weekSheet = (it: WaitingDocument) => `Week sheet ${it.document}`;
const toWeekSheet = (it: WaitingDocument): Place => ({ place: 'week-sheet', document: it.document });

/** Everything that can wait for somebody, one line a kind; what it stands on in the books is in server/waiting. */
export const WAITING = {
  certify: { who: 'certify', todo: ['application to certify', 'applications to certify'], named: application, to: toApplication },
  submit: {
    who: 'apply',
    todo: ['draft application to submit', 'draft applications to submit'],
    named: application,
    to: toApplication,
  },
  decide: { who: 'change-orders', todo: ['change order to decide', 'change orders to decide'], named: change, to: toChange },
  issue: {
    who: 'change-orders',
    todo: ['draft change order to issue', 'draft change orders to issue'],
    named: change,
    to: toChange,
  },
  send: {
    who: 'quote',
    todo: ['draft quotation to send', 'draft quotations to send'],
    named: (it) => `Quotation ${it.document}`,
    to: (it) => inJob({ number: it.job }, 'quotation', it.document),
  },
  award: {
    who: 'estimate',
    todo: ['accepted quotation to award', 'accepted quotations to award'],
    named: (it) => `Quotation ${it.document}`,
    to: (it) => inJob({ number: it.job }, 'quotation', it.document),
  },
  returnedTime: {
    who: 'enter-time',
    todo: ['returned week sheet to correct', 'returned week sheets to correct'],
    named: weekSheet,
    to: toWeekSheet,
  },
  remindedTime: {
    who: 'enter-time',
    todo: ['week of hours to hand in', 'weeks of hours to hand in'],
    named: (it) => `Hours, week of ${displayDate(it.document)}`,
    to: (it): Place => ({ place: 'week', document: it.document }),
  },
  approveTime: {
    who: 'approve-time',
    todo: ['week sheet to approve', 'week sheets to approve'],
    named: weekSheet,
    to: toWeekSheet,
  },
  postTime: {
    who: 'post-costs',
    todo: ['approved week sheet to post', 'approved week sheets to post'],
    named: weekSheet,
    to: toWeekSheet,
  },
  approve: { who: 'read-jobs', todo: ['approval to decide', 'approvals to decide'], named: approval, to: toApproval },
  carryOut: {
    who: 'read-jobs',
    todo: ['approved act to carry out', 'approved acts to carry out'],
    named: approval,
    to: toApproval,
  },
  refused: {
    who: 'read-jobs',
    todo: ['refused approval to read', 'refused approvals to read'],
    named: approval,
    to: toApproval,
  },
  answer: {
    who: 'quote',
    todo: ['question of a client to answer', 'questions of clients to answer'],
    named: (it) => `Question about quotation ${it.document}`,
    to: (it) => inJob({ number: it.job }, 'quotation', it.document),
  },
} as const satisfies Record<string, WaitingKind>;

export type WaitingName = keyof typeof WAITING;
export const WAITING_NAMES = Object.keys(WAITING) as WaitingName[];
