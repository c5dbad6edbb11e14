import { useMemo } from 'react';
import { QUANTITY_FIGURE_NAMES, QUANTITY_FIGURES, type QuantityFigure } from '../../../core/forecast/quantities';
import { known } from '../../../core/errors/known';
import { displayQuantity } from '../../../core/money/display';
import type { LineQuantitiesRow } from '../../../wire/jobs';
import { useLineQuantitiesQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { lineName, NO_GROUP, type Grouping } from '../../ground/costLines/lineLook';
import { groupsLookedAt, rowsLookedAt, type LookedLines } from '../../ground/costLines/useLookedLines';
import { Loaded } from '../../ground/Loaded';
import { OpenFigure } from '../../ground/workings/OpenFigure';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { showUnitCostFull } from '../../kit/typed/unitCosts';

interface Props {
  job: string;
  /** As the cost lines are looked at; null where somebody may not read them otherwise. */
  looked: LookedLines | null;
}

/** The cost lines of a job by quantity. */
export function Quantities({ job, looked }: Props) {
  const { asOf } = useAsOf();
  const quantities = useLineQuantitiesQuery({ job, asOf });
  return (
    <Loaded of={quantities} what={`the quantities of job ${job}`}>
      {(lines) =>
        lines.length === 0 ? (
          <Empty title="No cost line has a quantity yet">
            <p className="note m-0">Give the lines of the budget a quantity and a unit; costs are entered with theirs.</p>
          </Empty>
        ) : (
          <OfLines job={job} lines={lines} looked={looked} />
        )
      }
    </Loaded>
  );
}

function OfLines({ job, lines, looked }: Props & { lines: readonly LineQuantitiesRow[] }) {
  const { show } = useCurrency();
  const columns = useColumns(job, looked?.look.by ?? NO_GROUP);
  const rows = looked ? rowsLookedAt(looked, lines) : lines;
  // Quantities of several units do not add up; what they cost more does.
  const sums = (own: readonly LineQuantitiesRow[]) => ({
    priceEffect: show(own.reduce((sum, it) => sum + (it.priceEffect ?? 0), 0)),
  });
  return (
    <>
      <h2 className="mb-1">Quantities</h2>
      <Table
        label="Quantities"
        columns={columns}
        rows={rows}
        rowKey={(it) => String(it.id)}
        unsearched={looked !== null}
        groups={looked ? groupsLookedAt(looked, sums) : undefined}
        foot={{
          label: rows.length === lines.length ? `Job ${job}` : `${rows.length} of ${lines.length} lines`,
          cells: sums(rows),
        }}
        empty="No line is left of these conditions"
      />
      <p className="note mt-2 text-[12.5px]">
        Entries without a quantity are not counted. Price effect: what the quantity used has cost beyond the unit cost of the
        budget; a quantity left below zero is over by quantity.
      </p>
    </>
  );
}

function useColumns(job: string, by: Grouping): TableColumn<LineQuantitiesRow>[] {
  const kinds = useColumnKinds();
  const { show } = useCurrency();
  return useMemo(() => {
    const written = new Map<string, (value: number) => string>([
      ['quantity', displayQuantity],
      ['unit-cost', showUnitCostFull],
      ['money', show],
    ]);
    const figure = (name: QuantityFigure): TableColumn<LineQuantitiesRow> => {
      const { key, head, title, unit } = QUANTITY_FIGURES[name];
      const write = known(written, unit);
      return {
        key,
        title: head,
        number: write,
        value: (it) => it[key] ?? 0,
        cell: (it) => {
          const value = it[key];
          const isOver = value !== null && ((name === 'quantityLeft' && value < 0) || (name === 'priceEffect' && value > 0));
          return value === null ? (
            '–'
          ) : (
            <OpenFigure of={{ figure: name, job, line: it.id }} label={`${title}, ${it.costCode} ${it.costType}`}>
              <span className={isOver ? 'text-[var(--over)]' : ''}>{write(value)}</span>
            </OpenFigure>
          );
        },
      };
    };
    return [
      {
        ...kinds.text<LineQuantitiesRow>('line', 'Cost line', (it) => lineName(it, by)),
        stays: true,
        cut: 'two-lines',
      },
      kinds.text<LineQuantitiesRow>('unit', 'Unit', (it) => it.unit),
      ...QUANTITY_FIGURE_NAMES.map(figure),
    ];
  }, [kinds, show, job, by]);
}
