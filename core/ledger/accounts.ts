import type { CostType } from '../costs/costType';

/** What kind of account it is, in the order of the chart. */
export const ACCOUNT_TYPES = ['asset', 'liability', 'revenue', 'cost'] as const;
export type AccountType = (typeof ACCOUNT_TYPES)[number];

/** What stands behind accounts entry by entry; its rows and their balance tie (docs/rules.md §9). */
export type Subledger = 'job-cost' | 'accounts-receivable' | 'retention-receivable' | 'accounts-payable';

export interface Account {
  code: string;
  type: AccountType;
  name: string;
  subledger: Subledger | null;
}

/** The accounts Ledrin posts to, in the order of the chart. Numbers and names are our own; docs/rules.md §9 says what each is for. */
export const ACCOUNTS = {
  bank: { code: '1000', type: 'asset', name: 'Bank', subledger: null },
  receivable: { code: '1100', type: 'asset', name: 'Accounts receivable', subledger: 'accounts-receivable' },
  retentionReceivable: { code: '1150', type: 'asset', name: 'Retention receivable', subledger: 'retention-receivable' },
  payable: { code: '2100', type: 'liability', name: 'Accounts payable', subledger: 'accounts-payable' },
  taxPayable: { code: '2200', type: 'liability', name: 'Tax payable', subledger: null },
  wagesClearing: { code: '2800', type: 'liability', name: 'Wages clearing', subledger: null },
  costClearing: { code: '2900', type: 'liability', name: 'Job cost clearing', subledger: null },
  billings: { code: '4000', type: 'revenue', name: 'Contract billings', subledger: null },
  dayworkBillings: { code: '4050', type: 'revenue', name: 'Contract billings, daywork', subledger: null },
  costLabour: { code: '5010', type: 'cost', name: 'Job cost, labour', subledger: 'job-cost' },
  costMaterial: { code: '5020', type: 'cost', name: 'Job cost, material', subledger: 'job-cost' },
  costSubcontract: { code: '5030', type: 'cost', name: 'Job cost, subcontract', subledger: 'job-cost' },
  costEquipment: { code: '5040', type: 'cost', name: 'Job cost, equipment', subledger: 'job-cost' },
  costOther: { code: '5050', type: 'cost', name: 'Job cost, other', subledger: 'job-cost' },
  overheadLabour: { code: '6010', type: 'cost', name: 'Overhead labour', subledger: null },
  burdenApplied: { code: '6090', type: 'cost', name: 'Burden applied', subledger: null },
} as const satisfies Record<string, Account>;

export type AccountKey = keyof typeof ACCOUNTS;

export const JOB_COST_ACCOUNTS: Record<CostType, AccountKey> = {
  labour: 'costLabour',
  material: 'costMaterial',
  subcontract: 'costSubcontract',
  equipment: 'costEquipment',
  other: 'costOther',
};

const BY_CODE = new Map<string, Account>(Object.values(ACCOUNTS).map((it) => [it.code, it]));

/** The name of an account by its code; the code itself where it is not one of ours. */
export function accountName(code: string): string {
  return BY_CODE.get(code)?.name ?? code;
}
