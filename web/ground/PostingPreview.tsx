import { useMemo, type ReactNode } from 'react';
import { displayPercent, displayQuantity } from '../../core/money/display';
import type { CostPreview } from '../../wire/costs';
import { Journal } from '../kit/Journal';
import { Sign } from '../kit/Signs';
import { Table } from '../kit/table/Table';
import { useColumnKinds } from './columnKinds';
import { useCurrency } from './company';

type Line = CostPreview['lines'][number];
type Job = CostPreview['jobs'][number];

interface PostingPreviewProps {
  preview: Pick<CostPreview, 'lines' | 'jobs' | 'journals'>;
  above?: ReactNode;
}

/** What a posting would do: to the budget lines it touches, to the jobs, and in the ledger. */
export function PostingPreview({ preview, above }: PostingPreviewProps) {
  const { show } = useCurrency();
  return (
    <section aria-label="Preview" className="mt-4 grid grid-cols-[minmax(0,1.7fr)_minmax(300px,1fr)] gap-6">
      <div>
        {above}
        <h2 className="mb-1">Budget remaining after posting</h2>
        <BudgetLines lines={preview.lines} />
        <h2 className="mb-1 mt-4">Effect on jobs</h2>
        <Jobs jobs={preview.jobs} />
      </div>
      <div className="scroll max-h-[340px]" tabIndex={0} role="region" aria-label="Journals">
        <h2 className="mb-1">The journal</h2>
        {preview.journals.length === 0 ? (
          <p className="note">The amounts net to zero; only hours are posted.</p>
        ) : (
          preview.journals.map((journal) => <Journal key={journal.dated} journal={journal} show={show} />)
        )}
      </div>
    </section>
  );
}

/** What is left of a line by quantity, with its unit. */
const leftOf = ({ quantityLeft: it }: Line) => (it === null ? '' : `${displayQuantity(it.left)} ${it.unit}`.trim());

function BudgetLines({ lines }: { lines: readonly Line[] }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const counted = lines.some((it) => it.quantityLeft !== null);
  const columns = useMemo(() => {
    const name = (line: Line) => [line.section, line.costCode, line.costType].filter(Boolean).join(' · ');
    return [
      kinds.text<Line>('job', 'Job', (line) => line.job, {
        cell: (line) => <span className="whitespace-nowrap">{line.job}</span>,
      }),
      {
        ...kinds.text<Line>('line', 'Line', name),
        cell: (line: Line) => (
          <>
            {name(line)}
            {line.warning && (
              <span className={`ml-2 inline-flex gap-1 ${line.budgeted ? 'text-[var(--loss)]' : 'text-[var(--over)]'}`}>
                <Sign name={line.budgeted ? 'overrun' : 'unbudgeted'} bare />
                {line.warning}
              </span>
            )}
          </>
        ),
      },
      kinds.amount<Line>('revised', 'Revised budget', (line) => line.revised),
      kinds.amount<Line>('before', 'Cost before', (line) => line.before),
      kinds.amount<Line>('after', 'Cost after', (line) => line.after),
      {
        ...kinds.amount<Line>('remaining', 'Remaining', (line) => line.remaining),
        cell: (line: Line) => <b>{exact(line.remaining)}</b>,
      },
      ...(counted
        ? [
            {
              ...kinds.text<Line>('quantityLeft', 'Quantity left', (line) => leftOf(line)),
              right: true,
              cell: (line: Line) => (
                <span className={(line.quantityLeft?.left ?? 0) < 0 ? 'text-[var(--over)]' : ''}>{leftOf(line)}</span>
              ),
            },
          ]
        : []),
    ];
  }, [kinds, exact, counted]);
  return (
    <Table
      label="Budget remaining after posting"
      columns={columns}
      rows={lines}
      rowKey={(line) => `${line.job} ${line.section} ${line.costCode} ${line.costType}`}
    />
  );
}

function Jobs({ jobs }: { jobs: readonly Job[] }) {
  const { exact } = useCurrency();
  const columns = useMemo(() => {
    const change = ([was, now]: [number, number], text: (value: number) => string) =>
      was === now ? text(now) : `${text(was)} → ${text(now)}`;
    const overUnder = (value: number) => (value === 0 ? '–' : `${exact(Math.abs(value))} ${value > 0 ? 'over' : 'under'}`);
    return [
      {
        key: 'job',
        title: 'Job',
        value: (job: Job) => job.job,
        cell: (job: Job) => (
          <>
            {job.job} {job.name}
            {job.warning && <span className="ml-2 text-[var(--loss)]">{job.warning}</span>}
          </>
        ),
      },
      { key: 'estimate', title: 'Estimate at completion', right: true, cell: (job: Job) => change(job.estimate, exact) },
      { key: 'margin', title: 'Margin %', right: true, cell: (job: Job) => change(job.margin, displayPercent) },
      { key: 'overUnder', title: 'Over / under billed', right: true, cell: (job: Job) => change(job.overUnder, overUnder) },
    ];
  }, [exact]);
  return <Table label="Effect on jobs" columns={columns} rows={jobs} rowKey={(job) => job.job} />;
}
