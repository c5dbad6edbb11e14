import { useMemo } from 'react';
import { QUANTITY_FIGURE_NAMES, QUANTITY_FIGURES, type QuantityFigure } from '../../../core/forecast/quantities';
import { known } from '../../../core/errors/known';
import { displayQuantity } from '../../../core/money/display';
import type { LineQuantitiesRow } from '../../../wire/jobs';
import { useLineQuantitiesQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Downloads } from '../../ground/reports/ReportHead';
import { OpenFigure } from '../../ground/workings/OpenFigure';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { showUnitCostFull } from '../../kit/typed/unitCosts';

/** The cost lines of a job by quantity; nothing where none has one. */
export function Quantities({ job }: { job: string }) {
  const { asOf } = useAsOf();
  const { data: lines = [] } = useLineQuantitiesQuery({ job, asOf });
  const columns = useColumns(job);
  if (lines.length === 0) return null;
  return (
    <section aria-label="Quantities" className="mt-6">
      <div className="mb-1 flex items-end justify-between">
        <h2>Quantities</h2>
        <Downloads name="quantities" job={job} />
      </div>
      <Table label="Quantities" columns={columns} rows={lines} rowKey={(it) => String(it.id)} />
      <p className="note mt-2 text-[12.5px]">
        Entries without a quantity are not counted. Price effect: what the quantity used has cost beyond the unit cost of the
        budget; a quantity left below zero is over by quantity.
      </p>
    </section>
  );
}

function useColumns(job: string): TableColumn<LineQuantitiesRow>[] {
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
        ...kinds.text<LineQuantitiesRow>('line', 'Cost line', (it) =>
          [it.section, `${it.costCode} ${it.description}`, it.costType].filter(Boolean).join(' · '),
        ),
        stays: true,
        cut: 'two-lines',
      },
      kinds.text<LineQuantitiesRow>('unit', 'Unit', (it) => it.unit),
      ...QUANTITY_FIGURE_NAMES.map(figure),
    ];
  }, [kinds, show, job]);
}
