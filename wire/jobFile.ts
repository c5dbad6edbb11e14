import type { Place } from '../core/places/place';
import * as v from 'valibot';
import { DAY_FACTS, TEXT_FACTS } from '../core/jobs/jobFacts';
import type { ListFact } from '../core/jobs/listFacts';
import { PRICINGS } from '../core/charging/pricing';
import { REVENUE_METHODS } from '../core/progress/workInProgress';
import { cents, days, filled, list, optionalDate, plainDate, rate, seen, text, retentionTerms } from './fields';
import { command, download, query, upload } from './call';

export const EVENT_KINDS = ['note', 'call', 'meeting', 'visit', 'letter'] as const;

/** A check for each of some facts. */
function fieldsOf<Facts extends object, Check>(facts: Facts, check: (fact: Facts[keyof Facts]) => Check) {
  return Object.fromEntries(Object.entries(facts).map(([name, fact]) => [name, check(fact as Facts[keyof Facts])])) as Record<
    keyof Facts,
    Check
  >;
}

/** What a job is of in the company's lists, by code. */
const listed = v.optional(text(40), '');
export const listFacts = { kind: listed, department: listed, workKind: listed } satisfies Record<ListFact, unknown>;

/** What a job is priced by; the ceiling of a charged one, before tax. */
export const pricingFields = {
  pricing: v.optional(v.picklist(PRICINGS, `expected one of ${PRICINGS.join(', ')}`), 'fixed'),
  ceiling: v.optional(v.nullable(cents), null),
};

/** Facts of a job that may be changed; those billing was worked with only until the first application. */
const facts = {
  name: filled(),
  /** By its code. */
  client: filled(40),
  ...fieldsOf(TEXT_FACTS, ({ longest }) => text(longest)),
  ...fieldsOf(DAY_FACTS, () => optionalDate),
  ...listFacts,
  revenueMethod: v.picklist(REVENUE_METHODS, `expected one of ${REVENUE_METHODS.join(', ')}`),
  ...pricingFields,
  retention: retentionTerms,
  /** It was agreed that nothing is retained. */
  noRetention: v.boolean('expected yes or no'),
  taxRate: rate,
  termsDays: v.nullable(days),
};
export const jobFactsInput = v.strictObject({ ...facts, seen });
export type JobFactsInput = v.InferOutput<typeof jobFactsInput>;
export type JobFacts = Omit<JobFactsInput, 'seen'>;

const person = v.strictObject({
  side: v.picklist(['client', 'team'], 'expected client or team'),
  name: filled(),
  role: text(),
  email: text(),
  phone: text(60),
});
export const peopleInput = v.strictObject({
  seen,
  people: list(person, 200, 'people'),
});
export type Person = v.InferOutput<typeof person>;

export const eventInput = v.strictObject({
  kind: v.picklist(EVENT_KINDS, `expected one of ${EVENT_KINDS.join(', ')}`),
  dated: plainDate,
  text: filled(4000),
});
export type EventInput = v.InferOutput<typeof eventInput>;

const check = v.strictObject({ item: filled(), person: text(), dueOn: optionalDate, doneOn: optionalDate });
export const checklistInput = v.strictObject({
  seen,
  items: list(check, 200, 'items'),
});
export type CheckItem = v.InferOutput<typeof check>;

export const checkTemplateInput = v.strictObject({
  name: filled(80),
  items: v.pipe(list(filled(), 200, 'items'), v.minLength(1, 'expected at least one item')),
});
export type CheckTemplate = v.InferOutput<typeof checkTemplateInput>;

export const showOnSiteInput = v.strictObject({ forSite: v.boolean('expected yes or no') });
export const restrictInput = v.strictObject({ restricted: v.boolean('expected yes or no'), reason: filled(400) });
export const lockInput = v.strictObject({ locked: v.boolean('expected yes or no'), reason: filled(400) });

/** Something that has to be there before a job goes on site, and the door to it. */
export interface Missing {
  text: string;
  to: Place;
}

export interface AttachedFile {
  id: number;
  name: string;
  mediaType: string;
  size: number;
  hash: string;
  about: string;
  /** Those who work on site see it. */
  forSite: boolean;
  actor: string;
  addedAt: string;
}

export interface JobFileView {
  /** Digests of what a change of it must have seen. */
  seen: { facts: string; people: string; checklist: string };
  facts: JobFacts;
  /** Retention, tax, terms and revenue method are fixed: something was billed or posted with them. */
  fixed: boolean;
  /** There is an invoice: the job keeps its client. */
  billed: boolean;
  lines: { value: number; rate: number | null }[];
  people: Person[];
  events: (EventInput & { id: number; actor: string; recordedAt: string })[];
  checklist: CheckItem[];
  templates: CheckTemplate[];
  files: AttachedFile[];
  moves: { was: string; became: string; onDay: string | null; reason: string; actor: string; at: string }[];
  missing: Missing[];
}

export const jobFileCalls = {
  jobFile: query<JobFileView>('read-jobs')('/jobs/:job/file'),
  saveJobFacts: command('manage-jobs')('/jobs/:job/facts', { method: 'PUT', input: jobFactsInput }),
  savePeople: command('manage-jobs')('/jobs/:job/people', { method: 'PUT', input: peopleInput }),
  saveChecklist: command('manage-jobs')('/jobs/:job/checklist', { method: 'PUT', input: checklistInput }),
  saveCheckTemplate: command('manage-jobs')('/checklists', { method: 'PUT', input: checkTemplateInput }),
  addEvent: command('manage-jobs')('/jobs/:job/events', { input: eventInput }),
  attachFile: upload('manage-jobs')('/jobs/:job/attachments'),
  showOnSite: command('manage-jobs')('/jobs/:job/attachments/:id/site', { method: 'PUT', input: showOnSiteInput }),
  attachment: download('read-jobs')('/attachments/:id'),
};
