import { useMemo } from 'react';
import type { EstimateLine, EstimateView } from '../../../wire/jobs';
import { displayQuantity } from '../../../core/money/display';
import { useCurrency } from '../../ground/company';
import { FIGURES, lineName, sumOf, type Grouping } from '../../ground/costLines/lineLook';
import { groupsLookedAt, type LookedLines } from '../../ground/costLines/useLookedLines';
import { Fig } from '../../ground/workings/Fig';
import { Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

interface Props {
  view: EstimateView;
  job: string;
  looked: LookedLines;
  inWindow: boolean;
}

/** Estimate versus actual of a job: folding groups, unbudgeted cost in sight, every figure with its workings. */
export function EstimateTable({ view, job, looked, inWindow }: Props) {
  const { lines, whole, look } = looked;
  const written = useWritten();
  const columns = useMemo(() => columnsOf(look.by, job, written), [look.by, job, written]);
  const cells = (own: readonly EstimateLine[]) =>
    Object.fromEntries(FIGURES.map(({ key, unit }) => [key, written[unit](sumOf(own, key))]));
  return (
    <Table
      label="Estimate versus actual"
      columns={columns}
      rows={lines}
      rowKey={(it) => String(it.id)}
      unsearched
      height={inWindow ? 'window' : undefined}
      groups={groupsLookedAt(looked, cells)}
      foot={{
        label: whole ? `Job ${job}` : `${lines.length} of ${view.lines.length} lines`,
        cells: whole ? workedTotals(lines, job) : cells(lines),
      }}
    />
  );
}

type Written = Record<'money' | 'hours', (value: number) => string>;

/** How a sum is written that has no workings of its own. */
function useWritten(): Written {
  const { show } = useCurrency();
  return useMemo(() => ({ money: show, hours: displayQuantity }), [show]);
}

function workedTotals(lines: readonly EstimateLine[], job: string) {
  return Object.fromEntries(
    FIGURES.map(({ key, head, figure, unit }) => [
      key,
      <Fig key={key} value={sumOf(lines, key)} unit={unit} of={{ figure, job }} label={head} />,
    ]),
  );
}

function columnsOf(by: Grouping, job: string, written: Written): TableColumn<EstimateLine>[] {
  const nameOf = ({ section, costCode, description }: EstimateLine) => lineName({ section, costCode, description }, by);
  return [
    {
      key: 'line',
      title: 'Line',
      value: nameOf,
      cell: (it) => (
        <>
          <span className="pl-5">{nameOf(it)}</span> {!it.budgeted && <Sign name="unbudgeted" />}
        </>
      ),
    },
    { key: 'type', title: 'Type', value: (it) => it.costType, cell: (it) => it.costType },
    ...FIGURES.map(({ key, head, figure, unit }): TableColumn<EstimateLine> => ({
      key,
      title: head,
      wraps: true,
      value: (it) => it[key],
      number: written[unit],
      cell: (it) => (
        <>
          {key === 'variance' && it.variance < 0 && (
            <>
              <Sign name="overrun" bare />{' '}
            </>
          )}
          <Fig value={it[key]} unit={unit} of={{ figure, job, line: it.id }} label={`${head} of ${it.costCode} ${it.costType}`} />
        </>
      ),
    })),
  ];
}
