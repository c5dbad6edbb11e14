import { useStanding } from '../../ground/useStanding';
import { faultsUnder } from '../../kit/typed/codecs';
import { usePlanQuery, useSavePlanMutation } from '../../ground/api/api';
import { useMemo, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { COST_TYPES } from '../../../core/costs/costType';
import type { PlanView } from '../../../wire/plan';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useAttempt } from '../../ground/useAttempt';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { Refused, Waiting } from '../../kit/States';
import { StableForm, useTyped, type OnTyped } from '../../kit/StableForm';
import { AddLots } from './AddLots';
import { formOf, planCodecs, readPlan } from './planForm';
import { PlanCurve } from './PlanCurve';

/** The sections of a job with their dates and figures, and what is planned by month beside what happened. */
export function PlanPage() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const { data, error, refetch } = useStanding(usePlanQuery({ job, asOf }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the plan" />;
  return (
    <StableForm of={data} stamp={data.seen}>
      {(opened, onTyped) => (
        <Sections job={job} view={opened} onTyped={onTyped}>
          <PlanCurve view={data} />
        </Sections>
      )}
    </StableForm>
  );
}

interface SectionsProps {
  job: string;
  view: PlanView;
  onTyped: OnTyped;
  children: ReactNode;
}

/** When a section or a line is planned to be worked at. */
const PLANNED: readonly GridColumn[] = [
  { key: 'startsOn', title: 'Start', width: 96 },
  { key: 'finishesOn', title: 'Finish', width: 96 },
];

function Sections({ job, view, onTyped, children }: SectionsProps) {
  const { month } = useAsOf();
  const { code } = useCurrency();
  const codecs = useMemo(() => planCodecs(month), [month]);
  const start = useMemo(() => formOf(view, codecs), [view, codecs]);
  const [form, setForm] = useState(start);
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSavePlanMutation();
  const { faults, input } = useMemo(() => readPlan(form, codecs), [form, codecs]);
  const changed = JSON.stringify(form) !== JSON.stringify(start);
  useTyped(changed, onTyped);
  const part = (under: string) => faultsUnder(faults, under);
  const saveChanges = () =>
    attempt(async () => {
      await save({ job, body: { ...input, seen: view.seen } }).unwrap();
      onTyped(false);
    }, 'Plan saved');
  return (
    <div>
      <div className="mb-1 flex items-end gap-3">
        <h2 className="grow">Sections: lots, phases, areas</h2>
        <AddLots onRows={(rows) => setForm({ ...form, sections: [...form.sections, ...rows] })} />
        <button
          type="button"
          className={`button ${changed ? 'main' : ''}`}
          disabled={!changed || faults.size > 0 || isLoading}
          onClick={() => void saveChanges()}
        >
          {changed ? 'Save plan' : 'Saved'}
        </button>
      </div>
      {refused && <Refused message={refused.message} />}
      <EntryGrid
        label="Sections"
        columns={columnsOf(codecs.sections, useSectionColumns(view))}
        rows={form.sections}
        onRows={(sections) => setForm({ ...form, sections })}
        faults={part('sections.')}
        height={210}
        blank={Math.max(3, form.sections.length + 1)}
      />
      <p className="note mb-3 mt-1 text-[12.5px]">
        Amounts in {code}. Without dates of its own a section lies over the job’s. The days it started and finished make the
        instalments of a billing schedule due.
      </p>
      <div className="halves">
        <div>
          <h2 className="mb-1">Cost lines with dates of their own</h2>
          <EntryGrid
            label="Cost lines with dates"
            columns={columnsOf(codecs.lines, lineColumns(view))}
            rows={form.lines}
            onRows={(lines) => setForm({ ...form, lines })}
            faults={part('lines.')}
            height={160}
            blank={Math.max(3, form.lines.length + 1)}
          />
        </div>
        {children}
      </div>
    </div>
  );
}

function useSectionColumns(view: PlanView): GridColumn[] {
  const { show } = useCurrency();
  const of = (row: GridRow) => view.sections.find((it) => it.name === (row.name ?? '').trim());
  const figure = (key: 'scheduled' | 'billed' | 'revised' | 'actual' | 'estimate', title: string): GridColumn => ({
    key,
    title,
    width: 102,
    numeric: true,
    show: (row) => show(of(row)?.[key] ?? 0),
  });
  return [
    { key: 'name', title: 'Section', width: 'auto' },
    ...PLANNED,
    { key: 'startedOn', title: 'Started', width: 96 },
    { key: 'finishedOn', title: 'Finished', width: 96 },
    figure('scheduled', 'SOV'),
    figure('billed', 'Billed'),
    figure('revised', 'Budget'),
    figure('actual', 'Actual'),
    figure('estimate', 'At completion'),
  ];
}

function lineColumns(view: PlanView): GridColumn[] {
  return [
    {
      key: 'section',
      title: 'Section',
      width: 'auto',
      offers: () => view.sections.map((it) => ({ value: it.name, label: '' })),
    },
    { key: 'costCode', title: 'Cost code', width: 90 },
    { key: 'costType', title: 'Type', width: 110, offers: () => COST_TYPES.map((value) => ({ value, label: '' })) },
    ...PLANNED,
  ];
}
