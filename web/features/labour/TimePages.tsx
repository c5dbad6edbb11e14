import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { firstDay, isPeriod, lastDay, periodOf } from '../../../core/calendar/plainDate';
import { formatScaled } from '../../../core/money/decimal';
import { displayQuantity } from '../../../core/money/display';
import { UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import type { PayClass } from '../../../core/labour/payClass';
import type { ReportColumn, ReportReply } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { JobGroupChoice, useOverJobs, useReportGroups, type OverJobs } from '../../ground/reports/JobGroups';
import { ReportHead } from '../../ground/reports/ReportHead';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { readDate } from '../../kit/typed/readDate';
import { RateOfLine } from './RateOfLine';

/** What time cost, line by line, of the days from one to the date. */
export function TimeCostPage() {
  return <TimeReport name="time-cost" title="Time and what it cost" />;
}

/** What is to be paid for those days, by employee, pay code, job and rate. */
export function PayrollPage() {
  return <TimeReport name="payroll" title="Payroll" />;
}

function TimeReport({ name, title }: { name: string; title: string }) {
  const { asOf, month } = useAsOf();
  const [params, setParams] = useSearchParams();
  const typed = params.get('from');
  const from = (typed === null ? null : readDate(typed, month)) ?? firstDay(periodOf(asOf));
  const until = isPeriod(asOf) ? lastDay(asOf) : asOf;
  const asked = useOverJobs();
  // Time is grouped by department alone, and payroll is of the whole company.
  const over: OverJobs = name === 'time-cost' ? pickDepartment(asked) : {};
  const report = useReportQuery({ name, asOf, from, ...over });
  return (
    <div className="page">
      <ReportHead title={title} name={name} from={from} over={over} />
      <div className="mb-3 flex items-end gap-3">
        <Field label="Worked from" fault={typed === null || readDate(typed, month) ? undefined : 'Enter a date, e.g. 1 Apr 2031'}>
          <DayInput
            value={typed ?? displayDate(from)}
            month={month}
            className="w-[150px]"
            onText={(text) =>
              setParams((before) => new URLSearchParams([...before].filter(([key]) => key !== 'from').concat([['from', text]])), {
                replace: true,
              })
            }
          />
        </Field>
        {name === 'time-cost' && <JobGroupChoice over={over} among={['department']} />}
        <span className="note pb-1">to {displayDate(until)}, whenever it was posted</span>
      </div>
      <Loaded of={report} what="the time">
        {(data) =>
          data.rows.length < 2 ? (
            <Empty title="No time posted of these days">
              <p className="note m-0">
                Hours are entered on week sheets (Costs), approved and posted; or they come in with a book.
              </p>
            </Empty>
          ) : (
            <Lines title={title} report={data} />
          )
        }
      </Loaded>
    </div>
  );
}

const pickDepartment = ({ by, department }: OverJobs): OverJobs => ({
  ...(by === 'department' ? { by } : {}),
  ...(department === undefined ? {} : { department }),
});

type Row = ReportReply['rows'][number] & { at: string };

function Lines({ title, report }: { title: string; report: ReportReply }) {
  const { show } = useCurrency();
  const written = useMemo(
    () =>
      ({ kind }: ReportColumn, value: string | number) => {
        if (kind === 'date') return displayDate(String(value));
        if (typeof value === 'string') return value;
        if (kind === 'amount') return show(value);
        return kind === 'rate' ? formatScaled(value, UNIT_COST_DECIMALS) : displayQuantity(value);
      },
    [show],
  );
  // The head of a group says what its rows are of.
  const shown = useMemo(() => report.columns.filter((it) => it.key !== 'group'), [report.columns]);
  const columns = useMemo(
    () =>
      shown.map((column): TableColumn<Row> => {
        const text = column.kind === 'text' || column.kind === 'date';
        return {
          key: column.key,
          title: column.title,
          wraps: !text,
          value: (row: Row) => row[column.key] ?? '',
          ...(text ? {} : { number: (value: number) => written(column, value) }),
          cell: (row) =>
            column.key === 'rung' ? (
              <RateOfLine
                {...{
                  sheet: String(row.sheet),
                  line: String(row.line),
                  pay: String(row.pay) as PayClass,
                  rung: String(row.rung),
                }}
              />
            ) : column.kind === 'date' ? (
              <span className="whitespace-nowrap">{written(column, row[column.key] ?? '')}</span>
            ) : (
              written(column, row[column.key] ?? '')
            ),
        };
      }),
    [shown, written],
  );
  const rows = useMemo(() => report.rows.slice(0, -1).map((row, i): Row => ({ ...row, at: String(i) })), [report.rows]);
  const cellsOf = useCallback(
    (of: Readonly<Record<string, string | number>>) =>
      Object.fromEntries(shown.slice(1).map((column) => [column.key, written(column, of[column.key] ?? '')])),
    [shown, written],
  );
  const groups = useReportGroups<Row>(report.groups, cellsOf);
  return (
    <Table
      label={title}
      columns={columns}
      rows={rows}
      rowKey={(it) => it.at}
      height="window"
      groups={groups}
      foot={{ label: 'Total', cells: cellsOf(report.rows.at(-1) ?? {}) }}
    />
  );
}
