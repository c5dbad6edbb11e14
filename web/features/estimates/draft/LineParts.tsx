import { isFilled } from '../../../kit/grid/filledRow';
import { displayQuantity } from '../../../../core/money/display';
import { COST_TYPES } from '../../../../core/costs/costType';
import { partCost, type EstimateLine, type PricedLine } from '../../../../core/estimates/estimate';
import type { UnitShare } from '../../../../core/prices/buildUp';
import { formatQuantity } from '../../../../core/money/rate';
import type { PriceListView } from '../../../../wire/prices';
import type { Lists } from '../../../../wire/company';
import { partsAt } from './estimateForm';
import { SavePrices } from './SavePrices';
import { useCurrency } from '../../../ground/company';
import { EntryGrid } from '../../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../../kit/grid/gridTypes';
import { faultsUnder, markup, optional, tidyOf, type Faults } from '../../../kit/typed/codecs';
import { showUnitCost, unitCost } from '../../../kit/typed/unitCosts';

interface PartsProps {
  id: string;
  line: EstimateLine | null;
  cost: PricedLine | null;
  shares: readonly UnitShare[];
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
  faults: Faults;
  book: PriceListView;
  lists: Lists;
}

/** What one line is made of: its build-up by cost code and type, and whatever is priced on this line alone. */
export function LineParts(props: PartsProps) {
  const { id, line, rows, onRows, faults, book } = props;
  const { digits } = useCurrency();
  const own = faultsUnder(faults, partsAt(id));
  return (
    <section aria-label={`What line ${line?.line ?? ''} is made of`} className="mt-2">
      <LineHead {...props} />
      <EntryGrid
        label={`Priced on line ${line?.line ?? ''} alone`}
        columns={usePartColumns(props)}
        rows={rows}
        onRows={(next) => onRows(next.map((row, i) => withItem(row, rows[i], book, digits)))}
        faults={own}
        height={190}
        blank={Math.max(3, rows.length + 1)}
      />
      {line && line.parts.length > 0 && (
        <p className="mb-0 mt-1">
          <SavePrices line={line} rows={rows} onRows={onRows} faulty={own.size > 0} />
        </p>
      )}
    </section>
  );
}

const MARKUP = optional(markup, null);

/** A price item that is named brings everything the price list says of it. */
function withItem(row: GridRow, before: GridRow | undefined, book: PriceListView, digits: number): GridRow {
  const item = row.item !== before?.item ? book.items.find((it) => it.code === row.item) : undefined;
  if (!item) return row;
  return {
    basis: 'each',
    quantity: '1',
    ...row,
    description: item.description,
    costType: item.costType,
    costCode: item.costCode,
    unit: item.unit,
    unitCost: showUnitCost(item.unitCost, digits),
    markup: MARKUP.format(item.markup),
  };
}

function usePartColumns({ line, rows, book, lists }: PartsProps): GridColumn[] {
  const { digits, show } = useCurrency();
  const costOf = (row: GridRow, i: number) => {
    const part = isFilled(row) ? line?.parts[rows.slice(0, i).filter(isFilled).length] : undefined;
    return part && line ? show(partCost(line.quantity, part, digits)) : '';
  };
  return [
    {
      key: 'item',
      title: 'Price item',
      width: 100,
      offers: () => book.items.map((it) => ({ value: it.code, label: it.description })),
    },
    { key: 'description', title: 'Description', width: 'auto' },
    { key: 'costType', title: 'Type', width: 88, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    {
      key: 'costCode',
      title: 'Cost code',
      width: 68,
      offers: () => lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
    },
    {
      key: 'basis',
      title: 'For',
      width: 62,
      offers: () => [
        { value: 'each', label: `for each ${line?.unit || 'unit'} of the line` },
        { value: 'in all', label: 'for the whole line' },
      ],
    },
    { key: 'quantity', title: 'Quantity', width: 74, numeric: true },
    { key: 'unit', title: 'Unit', width: 46 },
    { key: 'unitCost', title: 'Unit cost', width: 84, numeric: true, tidy: tidyOf(unitCost(digits)) },
    { key: 'markup', title: 'Markup %', width: 62, numeric: true },
    { key: 'cost', title: 'Cost', width: 88, numeric: true, show: costOf },
  ];
}

/** The line, its build-up by cost code and type, its hours, and where its markup comes from. */
function LineHead({ line, cost, shares }: PartsProps) {
  const { digits } = useCurrency();
  const each = shares.reduce((sum, it) => sum + it.cost, 0);
  return (
    <div className="mb-1 flex items-baseline justify-between gap-6">
      <h2 className="line-title truncate">
        Line {line?.line} {line?.description}
        {line?.buildUp && (
          <span className="note font-normal">
            : {formatQuantity(line.quantity)} {line.unit} of {line.buildUp} at {showUnitCost(each, digits)}
            {' = '}
            {shares.map((it) => `${it.costType} ${it.costCode} ${showUnitCost(it.cost, digits)}`).join(' + ')}
          </span>
        )}
      </h2>
      {cost && (
        <span className="note whitespace-nowrap text-[12.5px]">
          {cost.hours !== 0 && `${displayQuantity(cost.hours)} h · `}markup by{' '}
          {{ line: 'the line', section: 'the section', type: 'item and type' }[cost.markupFrom]}
        </span>
      )}
    </div>
  );
}
