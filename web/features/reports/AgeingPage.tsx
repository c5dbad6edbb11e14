import { useMemo, useState } from 'react';
import { AGE_BANDS } from '../../../core/billing/ageing';
import { AGEING_FIGURE_NAMES, AGEING_FIGURES, type AgeingFigureName } from '../../../core/billing/ageingFigures';
import { displayDate } from '../../../core/calendar/displayDate';
import { at } from '../../../core/errors/known';
import type { ReportReply } from '../../../wire/reports';
import { useReportQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useClientNames } from '../../ground/partyNames';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { Legend, Sign } from '../../kit/Signs';
import { Table } from '../../kit/table/Table';
import { toggled } from '../../kit/table/toggled';
import type { TableColumn } from '../../kit/table/tableTypes';
import { ReportHead } from '../../ground/reports/ReportHead';

type Row = ReportReply['rows'][number];
const isApplication = (row: Row) => /^\d+$/.test(String(row.application));
const isLate = (row: Row) => AGE_BANDS.slice(1).some((band) => row[AGEING_FIGURES[band].column] !== 0);
const amountOf = (row: Row, key: string) => Number(row[key]);
const jobPath = (row: Row) => `/jobs/${encodeURIComponent(String(row.job))}`;

/** What clients owe by age, with the retention they hold. */
export function AgeingPage() {
  const { asOf } = useAsOf();
  const report = useReportQuery({ name: 'ageing', asOf });
  return (
    <div className="page">
      <ReportHead title="Ageing of receivables" name="ageing" />
      <Loaded of={report} what="the receivables">
        {(data) => <Receivables data={data} />}
      </Loaded>
      <p className="note mt-2 text-[12.5px]">
        <Legend names={['overdue', 'held']} />
      </p>
    </div>
  );
}

function Receivables({ data }: { data: ReportReply }) {
  const { show, code } = useCurrency();
  const columns = useReceivableColumns(data);
  const nameOf = useClientNames();
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const total = at(data.rows, -1);
  const sums = (rows: readonly Row[]) =>
    Object.fromEntries(
      AGEING_FIGURE_NAMES.map((name) => AGEING_FIGURES[name].column).map((column) => [
        column,
        show(rows.reduce((sum, row) => sum + amountOf(row, column), 0)),
      ]),
    );
  if (data.rows.length === 1) return <p>No unpaid invoices and no retention held.</p>;
  return (
    <Table<Row>
      label="Ageing"
      columns={columns}
      rows={data.rows.slice(0, -1)}
      rowKey={(row) => `${row.job} ${row.application}`}
      height="window"
      groups={{
        of: (row) => nameOf(String(row.customer)),
        sums,
        folded,
        onFold: (client) => setFolded(toggled(folded, client)),
      }}
      foot={{ label: `Total, ${code} (retention before tax)`, cells: sums([total]) }}
    />
  );
}

function useReceivableColumns({ columns }: ReportReply): TableColumn<Row>[] {
  const kinds = useColumnKinds();
  return useMemo(() => {
    const title = (key: string) => columns.find((it) => it.key === key)?.title ?? key;
    const openOf = (row: Row) =>
      isApplication(row)
        ? { figure: 'applicationOpen', job: String(row.job), application: Number(row.application) }
        : { figure: 'releaseOpen', job: String(row.job), release: String(row.application) };
    const figure = (name: AgeingFigureName): TableColumn<Row> => {
      const { column, title: head, explainedBy } = AGEING_FIGURES[name];
      const value = (row: Row) => amountOf(row, column);
      if (explainedBy === null) return kinds.amount<Row>(column, head, value);
      const held = explainedBy === 'held';
      const of = held ? (row: Row) => ({ figure: 'retentionHeld', job: String(row.job) }) : openOf;
      const amount = kinds.amount<Row>(column, head, value, held ? { of } : { of, figLabel: 'Outstanding' });
      const cell = (row: Row) => (
        <>
          {held && <Sign name="held" bare />} {amount.cell(row)}
        </>
      );
      return { ...amount, cell: (row) => (value(row) === 0 ? '–' : cell(row)) };
    };
    return [
      kinds.link<Row>('job', title('job'), (row) => String(row.job), jobPath),
      kinds.link<Row>(
        'application',
        title('application'),
        (row) => String(row.application),
        (row) => `${jobPath(row)}/billing${isApplication(row) ? `/${row.application}` : ''}`,
      ),
      kinds.day<Row>('dated', title('dated'), (row) => String(row.dated)),
      {
        ...kinds.day<Row>('due_on', title('due_on'), (row) => String(row.due_on)),
        cell: (row) => (
          <span className="whitespace-nowrap">
            {displayDate(String(row.due_on))} {isLate(row) && <Sign name="overdue" bare />}
          </span>
        ),
      },
      ...AGEING_FIGURE_NAMES.map(figure),
    ];
  }, [kinds, columns]);
}
