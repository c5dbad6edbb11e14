import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import { APPROVALS, APPROVAL_NAMES, APPROVERS, type ApprovalName, type Approver } from '../../../core/approvals/approvals';
import type { ApprovalRulesInput } from '../../../wire/approvals';
import { useApprovalRulesQuery, useSaveApprovalRulesMutation } from '../../ground/api/api';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Loaded } from '../../ground/Loaded';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { isFilled } from '../../kit/grid/filledRow';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { PageHead } from '../../kit/PageHead';
import { stableText } from '../../../core/lists/stableText';
import { Refused } from '../../kit/States';
import { amount } from '../../kit/typed/codecs';
import { useUnsaved } from '../../kit/unsaved';

type Rules = ApprovalRulesInput['rules'];

/** What has to be approved before it is done: by whom, from which amount on. */
export function ApprovalRulesPage() {
  const data = useApprovalRulesQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <div className="page max-w-[900px]">
      <PageHead title="Approvals" />
      <p className="mt-0">
        An action above an amount is approved by somebody of the role, or by an owner. Of several rules that an amount is above,
        the one with the largest limit holds. Whoever may approve an act does it without asking. Billing above a scheduled value
        is approved by an accountant where no rule says otherwise.
      </p>
      <Loaded of={data} what="the rules">
        {({ seen, rules }) => <Rules key={seen} seen={seen} rules={rules} />}
      </Loaded>
    </div>
  );
}

function Rules({ seen, rules }: { seen: string; rules: Rules }) {
  const { digits, code } = useCurrency();
  const codec = useMemo(() => amount(digits), [digits]);
  const [rows, setRows] = useState<GridRow[]>(() =>
    rules.map((it) => ({ act: APPROVALS[it.kind].act, above: codec.format(it.above), role: it.role })),
  );
  const [refused, setRefused] = useState<string | null>(null);
  const [cells, setCells] = useState<ReadonlyMap<string, string>>(new Map());
  const [save, { isLoading }] = useSaveApprovalRulesMutation();
  const columns = useMemo(
    (): GridColumn[] => [
      {
        key: 'act',
        title: 'Act',
        width: 'auto',
        offers: () => APPROVAL_NAMES.map((it) => ({ value: APPROVALS[it].act, label: APPROVALS[it].measured })),
      },
      { key: 'above', title: `Above, ${code}`, width: 130, numeric: true, codec },
      {
        key: 'role',
        title: 'Approved by',
        width: 150,
        offers: () => APPROVERS.map((it) => ({ value: it, label: it === 'owner' ? 'alone' : 'or an owner' })),
      },
    ],
    [codec, code],
  );
  const read = readRules(rows, codec);
  const changed = stableText(read.rules) !== stableText(rules) || read.faults.size > 0;
  useUnsaved(changed);
  const saveChanges = async () => {
    try {
      await save({ body: { seen, rules: read.rules } }).unwrap();
      setRefused(null);
      toast('Rules saved; they hold from now on');
    } catch (error) {
      const { message, faults } = faultOf(error);
      setRefused(message);
      setCells(new Map(faults.map((it) => [it.field.replace(/^rules\./, ''), it.message])));
    }
  };
  return (
    <>
      <EntryGrid
        label="Rules of approval"
        columns={columns}
        rows={rows}
        onRows={(next) => {
          setRows(next);
          setCells(new Map());
        }}
        faults={new Map([...read.faults, ...cells])}
        height={300}
        blank={Math.max(6, rows.length + 1)}
      />
      {refused && <Refused message={refused} />}
      <button
        type="button"
        className="button main mt-3"
        disabled={!changed || read.faults.size > 0 || isLoading}
        onClick={() => void saveChanges()}
      >
        {changed ? 'Save rules' : 'Saved'}
      </button>
    </>
  );
}

/** What the rows say, and which cells cannot be read. */
function readRules(rows: readonly GridRow[], codec: ReturnType<typeof amount>): { rules: Rules; faults: Map<string, string> } {
  const faults = new Map<string, string>();
  const rules = rows.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    const kind = APPROVAL_NAMES.find((it) => APPROVALS[it].act === (row.act ?? '').trim());
    const role = APPROVERS.find((it) => it === (row.role ?? '').trim());
    const above = codec.parse((row.above ?? '').trim() || '0');
    if (!kind) faults.set(`${i}.act`, 'Choose one of the acts');
    if (!role) faults.set(`${i}.role`, `Expected ${APPROVERS.join(', ')}`);
    if (!above.ok) faults.set(`${i}.above`, above.message);
    else if (above.value < 0) faults.set(`${i}.above`, 'Enter 0 or more');
    return [{ kind: kind as ApprovalName, above: above.ok ? above.value : 0, role: role as Approver }];
  });
  return { rules, faults };
}
