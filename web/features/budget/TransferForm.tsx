import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import { transferRefusals } from '../../../core/budget/transferRefusals';
import { displayDate } from '../../../core/calendar/displayDate';
import { useEstimateVersusActualQuery, useListsQuery, useTransferBudgetMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridRow } from '../../kit/grid/gridTypes';
import { useUnsaved } from '../../kit/unsaved';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { day, words } from '../../kit/typed/codecs';
import { readTransfer, transferColumns } from './transferRows';

/** Moves budget between lines: what leaves and what arrives must net to zero. */
export function TransferForm({ job, onDone }: { job: string; onDone: () => void }) {
  const { asOf, month, entryDay } = useAsOf();
  const { digits, exact, show, code } = useCurrency();
  const { data: lists } = useListsQuery({ asOf });
  const { data: budget } = useEstimateVersusActualQuery({ job, asOf });
  const [rows, setRows] = useState<GridRow[]>([]);
  const [cells, setCells] = useState<ReadonlyMap<string, string>>(new Map());
  const [transfer, { isLoading }] = useTransferBudgetMutation();
  const fields = useMemo(
    () => ({ dated: day(month), reason: words('Give the reason of the transfer; the log shows it') }),
    [month],
  );
  const form = useCodecForm(fields, { dated: displayDate(entryDay), reason: '' });
  const settled = useUnsaved(rows.length > 0);
  const { lines, faults, below, rest, moved } = readTransfer(rows, budget?.lines ?? [], digits);
  const onSubmit = form.submit(
    async (head) => {
      const { number } = await transfer({ job, body: { ...head, lines } }).unwrap();
      settled();
      toast(`Transfer ${number} of ${exact(moved)} is made`);
      onDone();
    },
    (error) => {
      const refused = faultOf(error);
      setCells(new Map(refused.faults.map((it) => [cellOf(it.field), it.message])));
      return refused;
    },
  );
  return (
    <form className="sheet mb-3 px-3 py-3" onSubmit={onSubmit} noValidate>
      <div className="mb-2 flex items-start gap-3">
        {form.input('dated', 'Day', { className: 'w-[140px]' })}
        <div className="grow">{form.input('reason', 'Reason')}</div>
        <p className="m-0 mt-[24px]" role="status">
          unallocated <b className={rest === 0 ? 'good' : 'loss'}>{exact(rest)}</b> {code}
        </p>
      </div>
      <EntryGrid
        label="Lines of the transfer"
        columns={transferColumns(budget?.lines ?? [], lists?.costCodes ?? [], digits, show)}
        rows={rows}
        onRows={(next) => {
          setRows(next);
          setCells(new Map());
        }}
        faults={new Map([...faults, ...cells])}
        height={170}
        blank={3}
      />
      {form.refused && <Refused message={form.refused} />}
      {below.length > 0 && (
        <p className="loss m-0 mt-2" role="status">
          {below.map((it) => `${it.costCode} ${it.costType}`).join(', ')}: the revised budget would be below zero.
        </p>
      )}
      <button
        className="button main mt-3"
        disabled={isLoading || faults.size > 0 || transferRefusals({ dated: '', awardedOn: null, lines }).length > 0}
      >
        Move {exact(moved)}
      </button>
    </form>
  );
}

/** The cell of the grid that a field of the reply is. */
function cellOf(field: string): string {
  const [, row, key] = /^lines\.(\d+)\.(\w+)$/.exec(field) ?? [];
  return `${row}.${key}`;
}
