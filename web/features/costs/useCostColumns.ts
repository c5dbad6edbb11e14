import { vendorCode } from '../../../core/costs/vendorOf';
import { takes } from '../../../core/jobs/takes';
import { useMemo } from 'react';
import { CHARGE_MARKS, MARK_WORDS } from '../../../core/charging/chargeMark';
import { COST_TYPES } from '../../../core/costs/costType';
import type { Lists } from '../../../wire/company';
import { extend } from '../../../core/prices/unitCost';
import type { BudgetedLine } from '../../../wire/costs';
import type { PriceItemInput } from '../../../wire/prices';
import { displayDate } from '../../../core/calendar/displayDate';
import { useCurrency } from '../../ground/company';
import { useAsOf } from '../../ground/asOf';
import { useBudgetedLinesQuery, useRecentCodingsQuery, useSessionQuery } from '../../ground/api/api';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { useNarrowWindow } from '../../kit/useNarrowWindow';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { budgetSays, proposeCoding, proposeType } from './proposeCoding';
import { lateDay, type costCodecs } from './readBatch';

const text = (value: string | undefined) => (value ?? '').trim();

/** The columns of a batch of costs, with what can be chosen in each. */
export function useCostColumns(
  lists: Lists,
  codecs: ReturnType<typeof costCodecs>,
  rows: readonly GridRow[],
  items: ReadonlyMap<string, PriceItemInput>,
): readonly GridColumn[] {
  const { digits } = useCurrency();
  const budget = useBudget(rows);
  const columns = useColumns(lists, codecs, items, budget);
  const isNarrow = useNarrowWindow(1200);
  const { data: posted } = useRecentCodingsQuery();
  const { entryDay } = useAsOf();
  return useMemo(() => {
    const proposals: Partial<Record<string, GridColumn['proposes']>> = {
      job: (_, index) => proposeCoding(rows, index, posted ?? [])?.job || null,
      section: (row, index) => proposeCoding(rows, index, posted ?? [])?.section || budgetSays(row, budget, 'section') || null,
      costType: (row, index) => proposeType(rows, index, posted ?? []) ?? budgetSays(row, budget, 'costType'),
      amount: (row) => amountOfItem(row, codecs, items, digits),
      // The first line is of today, the others of the day above.
      dated: (row, index) =>
        index === 0 ? displayDate(entryDay) : Object.keys(row).length > 0 ? text(rows[index - 1]?.dated) || null : null,
    };
    const narrowed = ({ key, width }: GridColumn) =>
      isNarrow && typeof width === 'number' && key !== 'dated' ? Math.round(width * 0.85) : width;
    return columns.map((it) => {
      const proposes = proposals[it.key];
      return { ...it, width: narrowed(it), ...(proposes ? { proposes } : {}) };
    });
  }, [columns, rows, posted, isNarrow, entryDay, budget, codecs, items, digits]);
}

const NO_BUDGET: readonly BudgetedLine[] = [];

/** The budget of the jobs that are typed. */
function useBudget(rows: readonly GridRow[]): readonly BudgetedLine[] {
  const { asOf } = useAsOf();
  const jobs = [...new Set(rows.map((it) => text(it.job)).filter(Boolean))].sort().slice(0, MOST_JOBS).join(',');
  const { currentData } = useBudgetedLinesQuery({ jobs, asOf }, { skip: jobs === '' });
  return currentData ?? NO_BUDGET;
}
/** More than these are not typed by hand at once. */
const MOST_JOBS = 40;

/** The quantity at the unit cost of the item that was chosen; null where one of them is not there. */
function amountOfItem(
  row: GridRow,
  codecs: ReturnType<typeof costCodecs>,
  items: ReadonlyMap<string, PriceItemInput>,
  digits: number,
): string | null {
  const item = items.get(text(row.item));
  const quantity = codecs.quantity.parse(row.quantity ?? '');
  if (!item || !quantity.ok || quantity.value === null) return null;
  return codecs.amount.format(extend(quantity.value, item.unitCost, digits));
}

function useColumns(
  lists: Lists,
  codecs: ReturnType<typeof costCodecs>,
  items: ReadonlyMap<string, PriceItemInput>,
  budget: readonly BudgetedLine[],
): GridColumn[] {
  const { data: session } = useSessionQuery();
  const closedTo = session?.closedTo ?? null;
  return useMemo(() => {
    const jobOf = (row: GridRow) => lists.jobs.find((it) => it.number === text(row.job));
    const parties = [...lists.vendors.map((it) => ({ value: it.code, label: it.name }))];
    return columnsOf(codecs, [
      { key: 'dated', title: 'Date', width: 108 },
      {
        key: 'item',
        title: 'Price item',
        isHelp: true,
        width: 90,
        offers: () => [...items.values()].map((it) => ({ value: it.code, label: it.description })),
      },
      {
        key: 'job',
        title: 'Job',
        width: 64,
        offers: () => lists.jobs.filter((it) => takes(it, 'cost')).map((it) => ({ value: it.number, label: it.name })),
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
      {
        key: 'party',
        title: 'Supplier / payee',
        width: 112,
        offers: () => parties,
        tidy: (typed) => vendorCode(typed, lists.vendors) ?? typed,
      },
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
      { key: 'hours', title: 'Hours', width: 58 },
      { key: 'amount', title: 'Amount', width: 104 },
      { key: 'description', title: 'Description', width: 'auto' },
      {
        key: 'uninstalled',
        title: 'On site, not installed',
        width: 54,
        offers: () => [{ value: 'yes', label: 'delivered, not installed yet' }],
      },
      {
        key: 'postedOn',
        title: 'Accounting date, if different',
        width: 100,
        proposes: (row: GridRow) => lateDay(row, codecs, closedTo),
      },
      { key: 'quantity', title: 'Quantity', width: 72 },
      {
        key: 'unit',
        title: 'Unit',
        width: 48,
        show: (row: GridRow) => items.get(text(row.item))?.unit || (budgetSays(row, budget, 'unit') ?? ''),
      },
      {
        key: 'charge',
        title: 'Charge the client',
        width: 74,
        offers: () => CHARGE_MARKS.map((value) => ({ value, label: MARK_WORDS[value] })),
      },
      { key: 'chargeFrom', title: 'Charged from', width: 100 },
      { key: 'markup', title: 'Markup %', width: 72 },
    ]);
  }, [lists, codecs, closedTo, items, budget]);
}
