import * as v from 'valibot';
import type { ChangeMove } from '../core/changes/changeLife';
import type { Reasons } from '../core/refusals/reasons';
import { cents, costType, days, filled, list, plainDate, quantity, text, version } from './fields';
import { command, dated, download, query } from './call';
import { sendInput, type OfferView } from './quotations';

const priceLine = v.strictObject({
  /** An SOV line of the job, or the number of a new one. */
  line: filled(40),
  section: text(80),
  description: text(400),
  quantity: v.nullable(quantity),
  unit: text(20),
  amount: cents,
});
const costLine = v.strictObject({
  section: text(80),
  costCode: filled(40),
  costType,
  sovLine: text(40),
  description: text(400),
  quantity: v.nullable(quantity),
  unit: text(20),
  hours: v.nullable(quantity),
  amount: cents,
});
const lines = <Line extends v.GenericSchema>(line: Line) => list(line, 2000, 'lines');

/** A change order as typed, while it is a draft. `version` 0 makes a new one. */
export const changeInput = v.strictObject({
  version,
  number: filled(40),
  title: filled(),
  raisedOn: plainDate,
  reference: text(),
  reason: text(2000),
  askedBy: text(),
  daysAsked: v.nullable(days),
  price: lines(priceLine),
  cost: lines(costLine),
});
export type ChangeInput = v.InferOutput<typeof changeInput>;

export const issueChangeInput = v.strictObject({ on: plainDate });

/** The decision on a change that was issued. `agreed` is what was approved in all; null is what was asked. */
export const decideChangeInput = v.strictObject({
  status: v.picklist(['approved', 'rejected', 'withdrawn'], 'expected approved, rejected or withdrawn'),
  on: plainDate,
  by: filled(),
  note: text(2000),
  agreed: v.nullable(cents),
  daysGranted: v.nullable(days),
});
export type DecideChangeInput = v.InferOutput<typeof decideChangeInput>;

/** A change the client has agreed to already: raised or saved, issued and approved at once. */
export const agreeChangeInput = v.strictObject({
  change: changeInput,
  /** The number of the draft it is; null for a new one. */
  was: v.nullable(filled(40)),
  on: plainDate,
  by: filled(),
});
export type AgreeChangeInput = v.InferOutput<typeof agreeChangeInput>;

/** Budget moved between lines of one job: the amounts net to zero. */
export const transferInput = v.strictObject({
  dated: plainDate,
  reason: filled(400),
  lines: v.pipe(
    list(
      v.strictObject({ section: text(80), costCode: filled(40), costType, amount: cents, hours: v.nullable(quantity) }),
      500,
      'lines',
    ),
    v.minLength(2, 'expected at least two lines: one that gives and one that takes'),
  ),
});
export type TransferInput = v.InferOutput<typeof transferInput>;

/** What approving a change would do to the job. */
export interface ChangeEffect {
  contractSum: [before: number, after: number];
  estimate: [before: number, after: number];
  profit: [before: number, after: number];
  margin: [before: number, after: number];
  /** Planned finish with the days granted so far; null where the job has none. */
  finish: [before: string | null, after: string | null];
}

export interface ChangeSummary {
  job: string;
  jobName: string;
  number: string;
  title: string;
  status: string;
  raisedOn: string;
  issuedOn: string | null;
  decidedOn: string | null;
  reference: string;
  reason: string;
  askedBy: string;
  daysAsked: number | null;
  daysGranted: number | null;
  decidedBy: string;
  decision: string;
  /** Price asked for, and price that counts: approved, or asked for while it is open. */
  asked: number;
  price: number;
  cost: number;
  hours: number;
}

export interface ChangeView extends ChangeSummary {
  version: number;
  savedBy: string;
  savedAt: string;
  priceLines: (ChangeInput['price'][number] & { asked: number | null; isNew: boolean })[];
  costLines: ChangeInput['cost'];
  /** Why each move of its life cannot be made; null where it can. */
  refused: Reasons<ChangeMove>;
  /** null once it is decided. */
  effect: ChangeEffect | null;
}

/** A change while it is typed: a new one, or a draft. */
export type TypedChange = Omit<ChangeView, 'refused'>;

/** A change in the register of all jobs. */
export interface RegisteredChange extends ChangeSummary {
  /** Days since it was issued, while it is open. */
  age: number | null;
  /** Cost already on its lines beyond their budget, while it is not approved. */
  spent: number;
}

export interface TransferView {
  number: number;
  dated: string;
  reason: string;
  actor: string;
  lines: TransferInput['lines'];
}

const change = '/jobs/:job/changes/:change';

export const changeCalls = {
  changeRegister: query<RegisteredChange[]>('read-jobs')('/changes', { query: dated, part: 'report:change-register' }),
  jobChanges: query<ChangeSummary[]>('read-jobs')('/jobs/:job/changes', { query: dated }),
  change: query<ChangeView>('read-jobs')(change, { query: dated }),
  addChange: command<{ version: number }>('change-orders')('/jobs/:job/changes', { input: changeInput }),
  saveChange: command<{ version: number }>('change-orders')(change, { method: 'PUT', input: changeInput }),
  deleteChange: command('change-orders')(change, { method: 'DELETE' }),
  agreeChange: command<{ version: number }>('change-orders')('/jobs/:job/agreed-changes', { input: agreeChangeInput }),
  issueChange: command('change-orders')(`${change}/issue`, { input: issueChangeInput }),
  decideChange: command('change-orders')(`${change}/decide`, { input: decideChangeInput }),
  changeOffers: query<OfferView[]>('read-jobs')(`${change}/offers`),
  sendChange: command('change-orders')(`${change}/send`, { input: sendInput }),
  changeDocument: download('read-jobs')(`${change}/document.:format`),
  transfers: query<TransferView[]>('read-jobs')('/jobs/:job/transfers', { query: dated }),
  transferBudget: command<{ number: number }>('transfer-budget')('/jobs/:job/transfers', { input: transferInput }),
};
