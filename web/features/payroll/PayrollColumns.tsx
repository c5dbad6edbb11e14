import { useMemo, useState } from 'react';
import { PAYROLL_FIELD_NAMES, PAYROLL_FIELDS } from '../../../core/labour/payroll';
import type { OutputOf } from '../../../wire/call';
import type { payrollCalls } from '../../../wire/payroll';
import { usePayrollSettingQuery, useSavePayrollSettingMutation } from '../../ground/api/api';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridRow } from '../../kit/grid/gridTypes';
import { columnsOf, readRows } from '../../kit/grid/rowCodecs';
import { Pop } from '../../kit/Pop';
import { Refused } from '../../kit/States';
import { oneOf, words, type Faults } from '../../kit/typed/codecs';

const codecs = { title: words('Expected the title of the column'), field: oneOf(PAYROLL_FIELD_NAMES) };
const COLUMNS = columnsOf(codecs, [
  { key: 'title', title: 'Title in the file', width: 'auto' },
  {
    key: 'field',
    title: 'Holds',
    width: 150,
    offers: () => PAYROLL_FIELD_NAMES.map((value) => ({ value, label: PAYROLL_FIELDS[value] })),
  },
]);

/** How the file for payroll is laid out: set once, as the payroll office wants it. */
export function PayrollColumns() {
  const [open, setOpen] = useState(false);
  const { data } = usePayrollSettingQuery();
  return (
    <Pop button="Columns of the file …" open={open} onOpen={setOpen} align="end" className="w-[460px] p-4">
      {data && <Columns key={data.seen} setting={data} onDone={() => setOpen(false)} />}
    </Pop>
  );
}

function Columns({ setting, onDone }: { setting: OutputOf<typeof payrollCalls.payrollSetting>; onDone: () => void }) {
  const [rows, setRows] = useState<GridRow[]>(() => setting.columns.map((it) => ({ ...it })));
  const read = useMemo(() => {
    const faults: Faults = new Map();
    return { columns: readRows(codecs, rows, faults).map((it) => it.value), faults };
  }, [rows]);
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSavePayrollSettingMutation();
  const saveIt = async () => {
    const body = { seen: setting.seen, columns: read.columns, declaration: setting.declaration };
    if (await attempt(() => save({ body }).unwrap(), 'Columns saved')) onDone();
  };
  return (
    <>
      <EntryGrid label="Columns of the file" columns={COLUMNS} rows={rows} onRows={setRows} faults={read.faults} height={320} />
      <button
        type="button"
        className="button main mt-2"
        disabled={read.faults.size > 0 || read.columns.length === 0 || isLoading}
        onClick={() => void saveIt()}
      >
        Save {read.columns.length} columns
      </button>
      {refused && <Refused message={refused.message} />}
    </>
  );
}
