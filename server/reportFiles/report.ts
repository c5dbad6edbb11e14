import type { PlainDate } from '../../core/calendar/plainDate';
import type { JobGroup } from '../../core/jobs/jobGroups';
import type { ReportColumn } from '../../wire/reports';

// What a column is stands on the wire, so that every way out (CSV, XLSX, PDF, screen) writes it alike.
export type { ReportColumn };

/** Values by column key: text as text; amounts in minor units, percentages in millionths, hours in ten-thousandths. */
export type ReportRow = Record<string, string | number>;

/** A column that follows from others of its row: their sum and difference, never below 0 where `notBelowZero`; or `of` ÷ `over`. */
export type Computed =
  { plus: readonly string[]; minus?: readonly string[]; notBelowZero?: boolean } | { of: string; over: string };

export interface Report {
  name: string;
  title: string;
  columns: readonly ReportColumn[];
  rows: ReportRow[];
  /** Where the last row is a total. */
  hasTotal: boolean;
  /** Columns a workbook may write as formulas, by their key. */
  computed?: Readonly<Record<string, Computed>>;
  /** For people: rows that stand together by the value of a column, under its name, with their sums. */
  groups?: {
    by: string;
    names: ReadonlyMap<string, string>;
    /** What each group comes to, where its columns do not simply add up. */
    totals?: ReadonlyMap<string, ReportRow>;
  };
}

export interface ReportRequest {
  asOf: PlainDate;
  /** Job number. */
  job?: string;
  application?: number;
  /** The first day of a report over a time; the first of the month of `asOf` where it is not said. */
  from?: PlainDate;
  /** What a report over jobs is grouped by. */
  by?: JobGroup;
  /** The department, and the kind of job, that it is narrowed to; by code. */
  department?: string;
  kind?: string;
}

const KINDS = { t: 'text', i: 'integer', d: 'date', a: 'amount', p: 'percent', h: 'hours', r: 'rate' } as const satisfies Record<
  string,
  ReportColumn['kind']
>;
/** A column as `key:kind:Title`, kind being the first letter of its name. */
export type ColumnSpec = `${string}:${keyof typeof KINDS}:${string}`;

/** Columns as written in one line each. */
export function columns(...specs: readonly ColumnSpec[]): ReportColumn[] {
  return specs.map((spec) => {
    const [key, kind, title] = spec.split(':') as [string, keyof typeof KINDS, string];
    return { key, kind: KINDS[kind], title };
  });
}

/** A total row: sums of the amount and hours columns, `TOTAL` in `label`, other text cells empty. */
export function totalRow(columnsOf: readonly ReportColumn[], rows: readonly ReportRow[], label: string): ReportRow {
  return Object.fromEntries(
    columnsOf.map(({ key, kind }) => {
      if (kind === 'amount' || kind === 'hours') return [key, rows.reduce((sum, row) => sum + (row[key] as number), 0)];
      return [key, key === label ? 'TOTAL' : kind === 'percent' ? 0 : ''];
    }),
  );
}
