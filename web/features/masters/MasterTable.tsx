import { useMemo } from 'react';
import { USUAL_TERMS_DAYS } from '../../../core/billing/invoice';
import { displayPercent } from '../../../core/money/display';
import { MASTERS, type MasterField, type MasterKind } from '../../../core/masters/masters';
import type { MasterRow } from '../../../wire/masters';
import { useColumnKinds } from '../../ground/columnKinds';
import { TITLES } from './MasterForm';
import { Table } from '../../kit/table/Table';

const SHOWN: Partial<Record<MasterField, string>> = {
  kind: 'Kind',
  contact: 'Contact',
  email: 'E-mail',
  unit: 'Unit',
  revenueMethod: 'Revenue recognition',
  workKind: 'Kind of work',
  checklist: 'Checklist',
};

interface MasterTableProps {
  kind: MasterKind;
  rows: readonly MasterRow[];
  chosen: string | null;
  onChoose: (code: string) => void;
}

export function MasterTable({ kind, rows, chosen, onChoose }: MasterTableProps) {
  const kinds = useColumnKinds();
  const columns = useMemo(() => {
    const { fields, coded, named } = MASTERS[kind];
    const has = (field: MasterField) => (fields as readonly MasterField[]).includes(field);
    const shown = (Object.keys(SHOWN) as MasterField[]).filter(has);
    return [
      {
        ...kinds.text<MasterRow>('code', TITLES[coded], (it) => it.code, { width: coded === 'code' ? 110 : 180 }),
        cell: (it: MasterRow) => (
          <button type="button" className="fig" onClick={() => onChoose(it.code)}>
            {it.code}
          </button>
        ),
      },
      kinds.text<MasterRow>('name', TITLES[named], (it) => it.name),
      ...shown.map((field) => kinds.text<MasterRow>(field, SHOWN[field] ?? '', (it) => String(it[field] ?? ''))),
      ...(has('retentionRate')
        ? [
            kinds.text<MasterRow>('retention', 'Retention %', (it) =>
              it.retentionRate === null ? '' : displayPercent(it.retentionRate),
            ),
          ]
        : []),
      ...(has('termsDays') && kind !== 'job-kinds'
        ? [kinds.count<MasterRow>('terms', 'Terms, days', (it) => it.termsDays ?? USUAL_TERMS_DAYS)]
        : []),
      // A kind of job that says nothing of terms leaves them to the client.
      ...(kind === 'job-kinds' ? [kinds.text<MasterRow>('terms', 'Terms, days', (it) => String(it.termsDays ?? ''))] : []),
      kinds.text<MasterRow>('used', 'Used by', (it) => it.usedBy.join(', ')),
      kinds.text<MasterRow>('closed', 'State', (it) => (it.closed ? 'closed to new use' : '')),
    ];
  }, [kind, kinds, onChoose]);
  return (
    <Table
      label={MASTERS[kind].title}
      columns={columns}
      rows={rows}
      rowKey={(it) => it.code}
      isCurrent={(it) => it.code === chosen}
      height="window"
      empty={`No ${MASTERS[kind].title.toLowerCase()} yet`}
    />
  );
}
