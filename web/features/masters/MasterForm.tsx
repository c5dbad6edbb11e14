import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { MASTERS, type MasterField, type MasterKind } from '../../../core/masters/masters';
import type { MasterInput, MasterRow } from '../../../wire/masters';
import type { Option } from '../../kit/choice/options';
import { REVENUE_METHODS } from '../../../core/progress/workInProgress';
import { useAsOf } from '../../ground/asOf';
import { useAddMasterMutation, useDeleteMasterMutation, useListsQuery, useSaveMasterMutation } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { useAttempt } from '../../ground/useAttempt';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { SureButton } from '../../kit/SureButton';
import { oneOf, optional, percent, whole, words, yes } from '../../kit/typed/codecs';

const LABELS: Record<MasterField, string> = {
  kind: 'Kind',
  contact: 'Contact',
  email: 'E-mail',
  phone: 'Phone',
  address: 'Address',
  termsDays: 'Terms, days',
  unit: 'Unit',
  retentionRate: 'Retention %',
  revenueMethod: 'Revenue recognition',
  workKind: 'Kind of work of its hours',
  payCode: 'Pay code of regular hours',
  checklist: 'Checklist',
  neverCertifies: 'Never certifies: what is applied for is billed in one act',
};
/** What code and name of a kind are called. */
export const TITLES = { code: 'Code', name: 'Name', description: 'Description', role: 'Role' } as const;

const NOT_SAID: Option = ['', 'not said'];
const PLACEHOLDERS: Partial<Record<MasterKind, Partial<Record<MasterField, string>>>> = {
  clients: { termsDays: '30' },
  vendors: { termsDays: '30' },
  'job-kinds': { termsDays: "the client's", retentionRate: 'as on the last job' },
};

const VENDOR_KINDS = [NOT_SAID, ['supplier', 'supplier'], ['subcontractor', 'subcontractor']] as const;

interface MasterFormProps {
  kind: MasterKind;
  /** Null for a new one. */
  row: MasterRow | null;
  /** Told the code it has now; null where it is gone. */
  onDone: (code: string | null) => void;
}

/** One row of a list, to be entered or changed. */
export function MasterForm({ kind, row, onDone }: MasterFormProps) {
  const { one, coded, named, fields } = MASTERS[kind];
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf }, { skip: !(fields as readonly string[]).includes('checklist') });
  const codecs = useMemo(
    () => ({
      code: words(`Enter a ${coded}`),
      name: named === 'role' ? words() : words(`Enter a ${named}`),
      kind: optional(oneOf<'supplier' | 'subcontractor'>(['supplier', 'subcontractor']), ''),
      contact: words(),
      email: words(),
      phone: words(),
      address: words(),
      unit: words(),
      termsDays: optional(whole('days'), null),
      retentionRate: optional(percent, null),
      revenueMethod: optional(oneOf(REVENUE_METHODS), ''),
      workKind: words(),
      payCode: words(),
      checklist: words(),
      neverCertifies: yes,
      closed: optional(oneOf(['yes']), null),
    }),
    [coded, named],
  );
  const form = useCodecForm(codecs, {
    code: row?.code ?? '',
    name: row?.name ?? '',
    kind: row?.kind ?? '',
    contact: row?.contact ?? '',
    email: row?.email ?? '',
    phone: row?.phone ?? '',
    address: row?.address ?? '',
    unit: row?.unit ?? '',
    termsDays: String(row?.termsDays ?? ''),
    retentionRate: codecs.retentionRate.format(row?.retentionRate ?? null),
    revenueMethod: row?.revenueMethod ?? '',
    workKind: row?.workKind ?? '',
    payCode: row?.payCode ?? '',
    checklist: row?.checklist ?? '',
    neverCertifies: yes.format(row?.neverCertifies ?? false),
    closed: row?.closed ? 'yes' : '',
  });
  const [add] = useAddMasterMutation();
  const [save] = useSaveMasterMutation();
  const onSubmit = form.submit(async ({ closed, ...values }) => {
    const body: MasterInput = { ...values, closed: closed === 'yes' };
    if (row) await save({ kind, code: row.code, body: { ...body, seen: row.seen } }).unwrap();
    else await add({ kind, body }).unwrap();
    toast(row ? `Saved ${body.code}` : `Added ${one} ${body.code}`);
    onDone(body.code);
  }, faultOf);
  const chosenFrom: Partial<Record<MasterField, readonly Option[]>> = {
    kind: VENDOR_KINDS,
    revenueMethod: [NOT_SAID, ...REVENUE_METHODS.map((it): Option => [it, it])],
    workKind: [NOT_SAID, ...(lists?.workKinds ?? []).map((it): Option => [it.code, `${it.code} ${it.name}`])],
    checklist: [NOT_SAID, ...(lists?.checklists ?? []).map((it): Option => [it, it])],
  };
  const field = (name: MasterField) => {
    if (name === 'neverCertifies') return form.tick(name, LABELS[name]);
    const options = chosenFrom[name];
    return options
      ? form.choice(name, LABELS[name], options)
      : form.input(name, LABELS[name], { placeholder: PLACEHOLDERS[kind]?.[name] });
  };
  return (
    <form aria-label={row ? `Change ${row.code}` : `New ${one}`} className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      {form.input('code', TITLES[coded], { autoFocus: row === null })}
      {form.input('name', TITLES[named])}
      {fields.map((name) => (
        <div key={name}>{field(name)}</div>
      ))}
      {row && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={form.text.closed === 'yes'}
            onChange={(event) => form.set('closed', event.target.checked ? 'yes' : '')}
          />
          Closed to new use
        </label>
      )}
      <div className="flex items-center gap-3">
        <button className="button main" disabled={form.busy || !form.changed}>
          {row ? (form.changed ? 'Save' : 'Saved') : `Add ${one}`}
        </button>
        {row && row.usedBy.length === 0 && <Remove kind={kind} code={row.code} onDone={() => onDone(null)} />}
      </div>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

function Remove({ kind, code, onDone }: { kind: MasterKind; code: string; onDone: () => void }) {
  const [remove] = useDeleteMasterMutation();
  const { refused, attempt } = useAttempt();
  return (
    <>
      <SureButton
        onSure={() => void attempt(() => remove({ kind, code }).unwrap(), `Deleted ${code}`).then((done) => done && onDone())}
      >
        {`Delete ${code}`}
      </SureButton>
      {refused && <Refused message={refused.message} />}
    </>
  );
}
