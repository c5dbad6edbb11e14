import * as v from 'valibot';
import { command, query } from './call';
import { REVENUE_METHODS } from '../core/progress/workInProgress';
import { days, filled, rate, seen, text } from './fields';

/**
 * A row of one of the company's lists; what its list does not have is empty. A person's code is the name, and the name the role. Of a
 * kind of job: what a new job of it begins with; null or empty where it says nothing.
 */
export const masterInput = v.strictObject({
  code: filled(),
  name: text(),
  kind: v.picklist(['supplier', 'subcontractor', ''], 'expected supplier, subcontractor or nothing'),
  contact: text(),
  email: text(),
  phone: text(60),
  address: text(400),
  termsDays: v.nullable(days),
  unit: text(20),
  retentionRate: v.nullable(rate),
  revenueMethod: v.picklist([...REVENUE_METHODS, ''], `expected one of ${REVENUE_METHODS.join(', ')}, or nothing`),
  /** The kind of work of its hours, by its code. */
  workKind: text(40),
  /** What payroll calls its regular hours. */
  payCode: text(40),
  /** A checklist saved under a name. */
  checklist: text(80),
  /** Of a client: what is applied for stands, and is billed in one act. */
  neverCertifies: v.boolean('expected true or false'),
  /** Closed to new use. */
  closed: v.boolean('expected true or false'),
});
export type MasterInput = v.InferOutput<typeof masterInput>;

export interface MasterRow extends MasterInput {
  /** In words, what uses it; empty where nothing does. */
  usedBy: string[];
  /** Of it as it is. */
  seen: string;
}

/** What merging one into another moves. */
export interface MergePreview {
  moves: string[];
  /** Why it cannot be done; null where it can. */
  refused: string | null;
  seen: string;
}

export const masterCalls = {
  masters: query<MasterRow[]>('read-jobs')('/masters/:kind'),
  addMaster: command('set-up')('/masters/:kind', { input: masterInput }),
  saveMaster: command('set-up')('/masters/:kind/:code', {
    method: 'PUT',
    input: v.strictObject({ ...masterInput.entries, seen }),
  }),
  /** Only of what nothing uses. */
  deleteMaster: command('set-up')('/masters/:kind/:code', { method: 'DELETE' }),
  mergePreview: query<MergePreview>('set-up')('/masters/:kind/:code/merge/:into'),
  mergeMaster: command('set-up')('/masters/:kind/:code/merge/:into', { input: v.strictObject({ seen }) }),
};
