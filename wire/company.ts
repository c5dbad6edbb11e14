import * as v from 'valibot';
import type { Role } from '../core/rights/rights';
import { isTimeZone } from '../core/calendar/dayIn';
import { isJobNumberPattern } from '../core/jobs/jobNumber';
import { days, filled, list, rate, text } from './fields';
import { command, dated, query, upload } from './call';
import type { SignedInView } from './users';

export const companyInput = v.strictObject({
  name: filled(),
  currency: v.pipe(filled(3), v.regex(/^[A-Z]{3}$/, 'expected an ISO 4217 code such as GBP')),
  taxName: text(40),
  taxRate: rate,
  yearStartMonth: v.pipe(
    v.number('expected a month from 1 to 12'),
    v.integer('expected a month from 1 to 12'),
    v.minValue(1, 'expected a month from 1 to 12'),
    v.maxValue(12, 'expected a month from 1 to 12'),
  ),
  address: text(400),
  registrationNumber: text(60),
  taxNumber: text(60),
  phone: text(60),
  email: text(),
  web: text(),
  /** Where its day begins; empty: the server's own. */
  timeZone: v.optional(
    v.pipe(
      text(60),
      v.check((it) => it === '' || isTimeZone(it), 'expected a time zone such as Europe/London, or nothing'),
    ),
    '',
  ),
  /** How long a phone of the site stays signed in. */
  siteDays: v.optional(
    v.pipe(
      v.number('expected days from 1 to 365'),
      v.integer('expected days from 1 to 365'),
      v.minValue(1, 'expected days from 1 to 365'),
      v.maxValue(365, 'expected days from 1 to 365'),
    ),
    30,
  ),
  /** How to pay, a line each. */
  bankDetails: text(600),
  jobNumberPattern: v.pipe(
    text(30),
    v.check((it) => it === '' || isJobNumberPattern(it), 'use # for the running number, such as YY-###, or leave it empty'),
  ),
});
export type CompanyInput = v.InferOutput<typeof companyInput>;

export const clientInput = v.strictObject({
  code: filled(40),
  name: filled(),
  contact: text(),
  email: text(),
  phone: text(60),
  address: text(400),
  termsDays: v.nullable(days),
  neverCertifies: v.optional(v.boolean('expected true or false'), false),
});
export type ClientInput = v.InferOutput<typeof clientInput>;

export const costCodesInput = v.strictObject({
  codes: v.pipe(
    list(v.strictObject({ code: filled(40), description: filled(), unit: text(20) }), 5000, 'codes at once'),
    v.minLength(1, 'expected at least one cost code'),
  ),
});
export type CostCodesInput = v.InferOutput<typeof costCodesInput>;

export interface Lists {
  clients: { code: string; name: string; termsDays: number | null }[];
  vendors: { code: string; name: string; kind: string }[];
  costCodes: { code: string; description: string; unit: string }[];
  jobs: { number: string; name: string; status: string; locked: boolean; sections: string[] }[];
  /** Names of our own people. */
  people: string[];
  kinds: { code: string; name: string }[];
  departments: { code: string; name: string }[];
  workKinds: { code: string; name: string }[];
  /** Names of checklists that are saved for other jobs. */
  checklists: string[];
  commitments: {
    number: string;
    line: string;
    job: string;
    section: string;
    costCode: string;
    costType: string;
    vendor: string;
    description: string;
    open: number;
  }[];
}

export interface Company {
  name: string;
  currency: string;
  /** Decimals of the currency's minor unit. */
  digits: number;
  /** Of its day; empty: the server’s own. */
  timeZone: string;
  siteDays: number;
  taxName: string;
  taxRate: number;
  yearStartMonth: number;
  address: string;
  jobNumberPattern: string;
  registrationNumber: string;
  taxNumber: string;
  phone: string;
  email: string;
  web: string;
  /** How to pay, as it stands on invoices. */
  bankDetails: string;
  hasLogo: boolean;
}

/** What the application needs to know before it draws anything. Of the company only what somebody who is signed in may know. */
export interface Session {
  /** Who is signed in; null for nobody. */
  user: SignedInView | null;
  /** Nobody may sign in yet: the first owner is to be made. */
  needsOwner: boolean;
  /** Serves the sample company, whose users sign in without a password. */
  demo: { role: Role; name: string }[];
  company: Company | null;
  /** The newest month with entries; null in an empty database. */
  newestMonth: string | null;
  /** The last day up to which the books are closed; null where none is. */
  closedTo: string | null;
  jobCount: number;
  /** A mail server is set up: messages are sent, not only written. */
  sendsMail: boolean;
  /** The company's own day. */
  today: string;
  /** What is wrong with the machine, such as a full disk: for owners, who are told on every page. */
  troubles: string[];
}

export const companyCalls = {
  session: query<Session>('open')('/session'),
  /** For whoever watches the server: it and its database answer, the disk has room, and copies are made; else 503, in words. */
  health: query<{ answers: true }>('open')('/health'),
  lists: query<Lists>('read-jobs')('/lists', { query: dated }),
  saveCompany: command('set-up')('/company', { input: companyInput }),
  /** As a data URL; empty where there is none. */
  companyLogo: query<{ logo: string }>('signed-in')('/company/logo'),
  saveLogo: upload('set-up')('/company/logo'),
  removeLogo: command('set-up')('/company/logo', { method: 'DELETE' }),
  addClient: command('set-up')('/clients', { input: clientInput }),
  addCostCodes: command('set-up')('/cost-codes', { input: costCodesInput }),
};
