import { useMemo, useState } from 'react';
import { displayQuantity } from '../../../core/money/display';
import type { AchievedCode, AchievedTask } from '../../../wire/labour';
import { useAchievedHoursQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

type Row = Pick<AchievedTask, 'quantity' | 'planned' | 'used' | 'perUnit'>;

/** What a unit took on finished jobs, by cost code: for whoever prices the next one. */
export function AchievedHoursPage() {
  const { asOf } = useAsOf();
  const achieved = useAchievedHoursQuery({ asOf });
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <div className="page">
      <PageHead title="Hours a unit, achieved" />
      <Loaded of={achieved} what="the hours of finished jobs">
        {({ codes }) =>
          codes.length === 0 ? (
            <Empty title="No finished job says what it installed">
              <p className="note m-0">Once a job is finished, the quantities of its budget and its posted hours are here.</p>
            </Empty>
          ) : (
            <Codes codes={codes} chosen={chosen} onChoose={setChosen} />
          )
        }
      </Loaded>
    </div>
  );
}

function figures<R extends Row>(): TableColumn<R>[] {
  const hours = (value: number | null) => (value === null ? '' : displayQuantity(value));
  const figure = (key: string, title: string, value: (it: R) => number | null): TableColumn<R> => ({
    key,
    title,
    value,
    number: displayQuantity,
    cell: (it) => hours(value(it)),
  });
  return [
    figure('quantity', 'Quantity', (it) => it.quantity),
    figure('plannedHours', 'Hours planned', (it) => it.planned),
    figure('used', 'Hours used', (it) => it.used),
    figure('planned', 'Planned a unit', (it) => it.perUnit.planned),
    {
      ...figure('achieved', 'Achieved a unit', (it) => it.perUnit.achieved),
      cell: ({ perUnit: { planned, achieved } }) => (
        <b className={planned !== null && achieved !== null && achieved > planned ? 'text-[var(--loss)]' : ''}>
          {hours(achieved)}
        </b>
      ),
    },
  ];
}

const keyOf = (it: AchievedCode) => `${it.costCode} ${it.unit}`;

interface CodesProps {
  codes: readonly AchievedCode[];
  chosen: string | null;
  onChoose: (key: string) => void;
}

function Codes({ codes, chosen, onChoose }: CodesProps) {
  const columns = useMemo(
    (): TableColumn<AchievedCode>[] => [
      {
        key: 'code',
        title: 'Cost code',
        value: (it) => `${it.costCode} ${it.description}`,
        cell: (it) => (
          <button type="button" className="fig text-[var(--accent)]" onClick={() => onChoose(keyOf(it))}>
            {it.costCode} {it.description}
          </button>
        ),
      },
      { key: 'unit', title: 'Unit', value: (it) => it.unit, cell: (it) => it.unit },
      ...figures<AchievedCode>(),
    ],
    [onChoose],
  );
  const tasks = useMemo(
    (): TableColumn<AchievedTask>[] => [
      {
        key: 'job',
        title: 'Job and section',
        value: (it) => `${it.job} ${it.jobName}`,
        cell: (it) => [`${it.job} ${it.jobName}`, it.section].filter(Boolean).join(' · '),
      },
      ...figures<AchievedTask>(),
    ],
    [],
  );
  const code = codes.find((it) => keyOf(it) === chosen);
  return (
    <>
      <p className="note mt-0">Jobs that are finished. Choose a cost code for what it took job by job.</p>
      <Table
        label="Hours a unit by cost code"
        columns={columns}
        rows={codes}
        rowKey={keyOf}
        isCurrent={(it) => keyOf(it) === chosen}
      />
      {code && (
        <section className="mt-6">
          <h2 className="mb-2">
            {code.costCode} {code.description}, {code.unit}
          </h2>
          <Table
            label={`Jobs of ${code.costCode}`}
            columns={tasks}
            rows={code.tasks}
            rowKey={(it) => `${it.job} ${it.section}`}
          />
        </section>
      )}
    </>
  );
}
