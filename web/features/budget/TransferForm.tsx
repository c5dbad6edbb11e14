import { useEstimateVersusActualQuery, useListsQuery, useTransferBudgetMutation } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import { parseQuantity } from '../../../core/money/rate';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { Field } from '../../kit/Field';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { readCostType, type Faults } from '../../kit/typed/readCells';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { readAmount, tidyAmount } from '../../kit/typed/tidyAmount';
import { withoutThousands } from '../../kit/typed/withoutThousands';

const filled = (row: GridRow) => Object.values(row).some((text) => text.trim() !== '');

/** Moves budget between lines: what leaves and what arrives must net to zero. */
export function TransferForm({ job, onDone }: { job: string; onDone: () => void }) {
  const { month, lastDay } = useAsOf();
  const { digits, exact, show, code } = useCurrency();
  const { data: lists } = useListsQuery({ asOf: month });
  const { data: budget } = useEstimateVersusActualQuery({ job, asOf: month });
  const [dated, setDated] = useState(displayDate(lastDay));
  const [reason, setReason] = useState('');
  const [rows, setRows] = useState<GridRow[]>([]);
  const [refused, setRefused] = useState<ShownFault | null>(null);
  const [transfer, { isLoading }] = useTransferBudgetMutation();
  const faults: Faults = new Map();
  const lineOf = (section: string, code: string, type: string) =>
    budget?.lines.find((it) => it.section === section && it.costCode === code && it.costType === type);
  const lines = rows.flatMap((row, i) => {
    if (!filled(row)) return [];
    const text = (key: string) => (row[key] ?? '').trim();
    const amount = readAmount(text('amount'), digits);
    if (amount === null) faults.set(`${i}.amount`, 'Expected an amount, below zero for what leaves');
    if (text('code') === '') faults.set(`${i}.code`, 'Expected a cost code');
    const hours = text('hours') === '' ? null : parseQuantity(withoutThousands(text('hours')));
    if (hours && !hours.ok) faults.set(`${i}.hours`, `"${text('hours')}" is not a number`);
    return [
      {
        section: text('section'),
        costCode: text('code'),
        costType: readCostType(faults, `${i}.type`, row.type),
        amount: amount ?? 0,
        hours: hours?.ok ? hours.value : null,
      },
    ];
  });
  const below = lines.filter((it) => (lineOf(it.section, it.costCode, it.costType)?.revised ?? 0) + it.amount < 0);
  const rest = lines.reduce((sum, it) => sum + it.amount, 0);
  const moved = lines.reduce((sum, it) => sum + Math.max(0, it.amount), 0);
  for (const it of refused?.faults ?? []) {
    const match = /^lines\.(\d+)\.(\w+)$/.exec(it.field);
    if (match) faults.set(`${match[1]}.${match[2] === 'costCode' ? 'code' : match[2]}`, it.message);
  }
  const found = (row: GridRow) => lineOf((row.section ?? '').trim(), (row.code ?? '').trim(), (row.type ?? '').trim());
  const columns: GridColumn[] = [
    {
      key: 'section',
      title: 'Section',
      width: 150,
      offers: () => [...new Set(budget?.lines.map((it) => it.section))].filter(Boolean).map((value) => ({ value, label: '' })),
    },
    {
      key: 'code',
      title: 'Cost code',
      width: 90,
      offers: () => (lists?.costCodes ?? []).map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'type', title: 'Type', width: 110, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    { key: 'left', title: 'Revised now', width: 120, numeric: true, show: (row) => show(found(row)?.revised ?? 0) },
    { key: 'spent', title: 'Actual', width: 120, numeric: true, show: (row) => show(found(row)?.actual ?? 0) },
    {
      ...{ key: 'after', title: 'Revised then', width: 120, numeric: true },
      show: (row) => {
        const then = (found(row)?.revised ?? 0) + (readAmount((row.amount ?? '').trim(), digits) ?? 0);
        return <span style={then < 0 ? { color: 'var(--loss)' } : undefined}>{show(then)}</span>;
      },
    },
    { key: 'hours', title: 'Hours', width: 80, numeric: true },
    { key: 'amount', title: 'In (+) / out (−)', width: 130, numeric: true, tidy: tidyAmount(digits) },
  ];
  const make = async (event: React.FormEvent) => {
    event.preventDefault();
    const day = readDate(dated, month);
    if (!day) return setRefused({ message: 'Day: expected one such as 30 Apr 2031', faults: [] });
    if (reason.trim() === '') return setRefused({ message: 'Give the reason of the transfer; the log shows it', faults: [] });
    try {
      const { number } = await transfer({ job, body: { dated: day, reason, lines } }).unwrap();
      toast(`Transfer ${number} of ${exact(moved)} is made`);
      onDone();
    } catch (error) {
      setRefused(faultOf(error));
    }
  };
  return (
    <form className="sheet mb-3 px-3 py-3" onSubmit={(event) => void make(event)}>
      <div className="mb-2 flex items-end gap-3">
        <Field label="Day">
          <input value={dated} style={{ width: 120 }} onChange={(event) => setDated(event.target.value)} />
        </Field>
        <Field label="Reason" className="grow">
          <input value={reason} onChange={(event) => setReason(event.target.value)} />
        </Field>
        <p className="m-0 pb-1" role="status">
          unallocated <b style={{ color: rest === 0 ? 'var(--good)' : 'var(--loss)' }}>{exact(rest)}</b> {code}
        </p>
      </div>
      <EntryGrid
        label="Lines of the transfer"
        columns={columns}
        rows={rows}
        onRows={setRows}
        faults={faults}
        height={170}
        blank={3}
      />
      {refused && <Refused message={refused.message} />}
      {below.length > 0 && (
        <p className="m-0 mt-2" role="status" style={{ color: 'var(--loss)' }}>
          {below.map((it) => `${it.costCode} ${it.costType}`).join(', ')}: the revised budget would be below nothing.
        </p>
      )}
      <button className="button main mt-3" disabled={isLoading || rest !== 0 || lines.length < 2 || faults.size > 0}>
        Move {exact(moved)}
      </button>
    </form>
  );
}
