import type { CostType } from '../costs/costType';

/** The accounts Ledrin posts to. Numbers and names are our own; docs/rules.md §9 says what each is for. */
export const ACCOUNTS = {
  bank: { code: '1000', name: 'Bank' },
  receivable: { code: '1100', name: 'Accounts receivable' },
  retentionReceivable: { code: '1150', name: 'Retention receivable' },
  payable: { code: '2100', name: 'Accounts payable' },
  taxPayable: { code: '2200', name: 'Tax payable' },
  costClearing: { code: '2900', name: 'Job cost clearing' },
  billings: { code: '4000', name: 'Contract billings' },
  costLabour: { code: '5010', name: 'Job cost, labour' },
  costMaterial: { code: '5020', name: 'Job cost, material' },
  costSubcontract: { code: '5030', name: 'Job cost, subcontract' },
  costEquipment: { code: '5040', name: 'Job cost, equipment' },
  costOther: { code: '5050', name: 'Job cost, other' },
} as const;

export type AccountKey = keyof typeof ACCOUNTS;

export const JOB_COST_ACCOUNTS: Record<CostType, AccountKey> = {
  labour: 'costLabour',
  material: 'costMaterial',
  subcontract: 'costSubcontract',
  equipment: 'costEquipment',
  other: 'costOther',
};

/** The name of an account by its code; the code itself where it is not one of ours. */
export function accountName(code: string): string {
  return Object.values(ACCOUNTS).find((account) => account.code === code)?.name ?? code;
}
