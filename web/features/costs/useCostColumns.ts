import { amount, tidyOf } from '../../kit/typed/codecs';
import { useMemo } from 'react';
import { COST_TYPES } from '../../../core/costs/costType';
import type { Lists } from '../../../wire/company';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { ofDays, type GridColumn, type GridRow } from '../../kit/grid/gridTypes';

const text = (value: string | undefined) => (value ?? '').trim();

/** The columns of a batch of costs, with what can be chosen in each. */
export function useCostColumns(lists: Lists): GridColumn[] {
  const { month } = useAsOf();
  const { digits } = useCurrency();
  return useMemo(() => {
    const jobOf = (row: GridRow) => lists.jobs.find((it) => it.number === text(row.job));
    const parties = [...lists.vendors.map((it) => ({ value: it.code, label: it.name }))];
    return [
      { key: 'dated', title: 'Date', width: 92, ...ofDays(month) },
      {
        key: 'job',
        title: 'Job',
        width: 64,
        offers: () =>
          lists.jobs.filter((it) => it.status !== 'closed' && !it.locked).map((it) => ({ value: it.number, label: it.name })),
      },
      {
        key: 'section',
        title: 'Section',
        width: 96,
        offers: (row: GridRow) => (jobOf(row)?.sections ?? []).map((value) => ({ value, label: '' })),
      },
      {
        key: 'costCode',
        title: 'Code',
        width: 60,
        offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
      },
      { key: 'costType', title: 'Type', width: 88, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
      { key: 'party', title: 'Supplier / payee', width: 112, offers: () => parties },
      { key: 'reference', title: 'Reference', width: 92 },
      {
        key: 'commitment',
        title: 'PO / subcontract',
        width: 104,
        offers: (row: GridRow) =>
          lists.commitments
            .filter((it) => !row.job || it.job === text(row.job))
            .map((it) => ({ value: `${it.number}/${it.line}`, label: `${it.vendor}, ${it.costCode} ${it.costType}` })),
      },
      { key: 'hours', title: 'Hours', width: 58, numeric: true },
      { key: 'amount', title: 'Amount', width: 104, numeric: true, tidy: tidyOf(amount(digits)) },
      { key: 'description', title: 'Description', width: 'auto' },
      {
        key: 'uninstalled',
        title: 'On site, not installed',
        width: 54,
        offers: () => [{ value: 'yes', label: 'delivered, not installed yet' }],
      },
      { key: 'postedOn', title: 'Accounting date, if different', width: 92, ...ofDays(month) },
    ];
  }, [lists, month, digits]);
}
