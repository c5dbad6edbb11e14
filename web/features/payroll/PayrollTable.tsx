import { useMemo } from 'react';
import { multiplierText } from '../../../core/labour/payClass';
import { formatScaled } from '../../../core/money/decimal';
import { displayQuantity } from '../../../core/money/display';
import { UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import type { NamedPayrollRow } from '../../../wire/payroll';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

/** Hours and pay by employee, pay code, job and rate, classes and piece work apart. */
export function PayrollTable({ rows }: { rows: readonly NamedPayrollRow[] }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const columns = useMemo((): TableColumn<NamedPayrollRow>[] => {
    const hours = (value: number) => (value === 0 ? '–' : displayQuantity(value));
    return [
      kinds.text<NamedPayrollRow>('payrollNumber', 'Payroll number', (it) => it.payrollNumber),
      kinds.text<NamedPayrollRow>('name', 'Name', (it) => it.name),
      kinds.text<NamedPayrollRow>('payCode', 'Pay code', (it) => it.payCode),
      kinds.text<NamedPayrollRow>('job', 'Job', (it) => it.job || 'overhead'),
      {
        key: 'hours',
        title: 'Hours',
        value: (it: NamedPayrollRow) => it.hours,
        number: hours,
        adds: true,
        cell: (it) => hours(it.hours),
      },
      { key: 'rate', title: 'Rate', right: true, cell: (it) => formatScaled(it.rate, UNIT_COST_DECIMALS) },
      { key: 'multiplier', title: 'Multiplier', right: true, cell: (it) => (it.isPieceWork ? 'pieces' : multiplierText(it.pay)) },
      {
        key: 'units',
        title: 'Pieces',
        value: (it: NamedPayrollRow) => it.units,
        number: hours,
        cell: (it) => hours(it.units),
      },
      kinds.amount<NamedPayrollRow>('topUp', 'of which top-up', (it) => it.topUp),
      kinds.amount<NamedPayrollRow>('amount', 'Pay', (it) => it.amount),
    ];
  }, [kinds]);
  const sum = (value: (it: NamedPayrollRow) => number) => rows.reduce((total, it) => total + value(it), 0);
  return (
    <Table
      label="Hours and pay"
      columns={columns}
      rows={rows}
      rowKey={(it) => JSON.stringify([it.employee, it.payCode, it.job, it.rate, it.pay, it.isPieceWork])}
      height={380}
      foot={{
        label: 'Total',
        cells: {
          hours: displayQuantity(sum((it) => it.hours)),
          topUp: exact(sum((it) => it.topUp)),
          amount: exact(sum((it) => it.amount)),
        },
      }}
    />
  );
}
