import type { Fault } from '../errors/ledrinError';

/** What others refer to by a code of its own, people by their name: edited, renamed, closed to new use, and merged into another of its kind. */
export const MASTERS = {
  clients: {
    one: 'client',
    title: 'Clients',
    coded: 'code',
    named: 'name',
    fields: ['contact', 'email', 'phone', 'address', 'termsDays', 'neverCertifies'],
  },
  vendors: {
    one: 'vendor',
    title: 'Vendors',
    coded: 'code',
    named: 'name',
    fields: ['kind', 'contact', 'email', 'phone', 'address', 'termsDays'],
  },
  'cost-codes': { one: 'cost code', title: 'Cost codes', coded: 'code', named: 'description', fields: ['unit'] },
  'job-kinds': {
    one: 'kind of job',
    title: 'Kinds of job',
    coded: 'code',
    named: 'name',
    fields: ['retentionRate', 'revenueMethod', 'termsDays', 'workKind', 'payCode', 'checklist'],
  },
  departments: { one: 'department', title: 'Departments', coded: 'code', named: 'name', fields: [] },
  people: { one: 'person', title: 'People', coded: 'name', named: 'role', fields: ['email', 'phone'] },
} as const satisfies Record<string, MasterOfKind>;

export type MasterField =
  | 'kind'
  | 'contact'
  | 'email'
  | 'phone'
  | 'address'
  | 'termsDays'
  | 'unit'
  | 'retentionRate'
  | 'revenueMethod'
  | 'workKind'
  | 'payCode'
  | 'checklist'
  | 'neverCertifies';

interface MasterOfKind {
  one: string;
  title: string;
  /** What it is referred to by. */
  coded: 'code' | 'name';
  /** What stands beside that; a role may be empty. */
  named: 'name' | 'description' | 'role';
  /** What is known of it beside the two. */
  fields: readonly MasterField[];
}

export type MasterKind = keyof typeof MASTERS;
export const MASTER_KINDS = Object.keys(MASTERS) as [MasterKind, ...MasterKind[]];

export function isMasterKind(text: string): text is MasterKind {
  return Object.hasOwn(MASTERS, text);
}

/** What a master has nothing of, for what its list does not have. */
export const NO_MORE = {
  kind: '',
  contact: '',
  email: '',
  phone: '',
  address: '',
  termsDays: null,
  unit: '',
  retentionRate: null,
  revenueMethod: '',
  workKind: '',
  payCode: '',
  checklist: '',
  neverCertifies: false,
} as const satisfies Record<MasterField, '' | null | false>;

/** Most characters of a code. */
export const LONGEST_CODE = 40;

/** What is wrong with what one of a kind is called, by field; empty where nothing is. */
export function masterFaults(kind: MasterKind, { code, name }: { code: string; name: string }): Fault[] {
  const { coded, named } = MASTERS[kind];
  return [
    ...(coded === 'code' && code.length > LONGEST_CODE
      ? [{ field: 'code', message: `expected at most ${LONGEST_CODE} characters; shorten the code` }]
      : []),
    ...(named !== 'role' && name.trim() === '' ? [{ field: 'name', message: `expected a ${named}; enter one` }] : []),
  ];
}
