/** What others refer to by a code of its own: edited, renamed, closed to new use, and merged into another of its kind. */
export const MASTERS = {
  clients: { one: 'client', title: 'Clients', named: 'name', fields: ['contact', 'email', 'phone', 'address', 'termsDays'] },
  vendors: {
    ...{ one: 'vendor', title: 'Vendors', named: 'name' },
    fields: ['kind', 'contact', 'email', 'phone', 'address', 'termsDays'],
  },
  'cost-codes': { one: 'cost code', title: 'Cost codes', named: 'description', fields: ['unit'] },
} as const satisfies Record<string, MasterOfKind>;

export type MasterField = 'kind' | 'contact' | 'email' | 'phone' | 'address' | 'termsDays' | 'unit';

interface MasterOfKind {
  one: string;
  title: string;
  /** What its name is called. */
  named: 'name' | 'description';
  /** What is known of it beside code and name. */
  fields: readonly MasterField[];
}

export type MasterKind = keyof typeof MASTERS;
export const MASTER_KINDS = Object.keys(MASTERS) as [MasterKind, ...MasterKind[]];

export function isMasterKind(text: string): text is MasterKind {
  return Object.hasOwn(MASTERS, text);
}
