import { useAchievedQuery } from '../../ground/api/api';
import { useMemo } from 'react';
import { displayQuantity } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { Achieved, BuildUpInput } from '../../../wire/prices';
import { useColumnKinds } from '../../ground/columnKinds';
import { Table } from '../../kit/table/Table';
import { showUnitCostFull } from '../../kit/typed/unitCosts';

/** What the build-up took on finished jobs, beside what it was priced at then and is priced at now. */
export function AchievedTable({ buildUp, perUnit }: { buildUp: BuildUpInput; perUnit: { cost: number; hours: number } }) {
  const columns = useAchievedColumns();
  const { data } = useAchievedQuery();
  const jobs = (data ?? []).filter((it) => it.buildUp === buildUp.code);
  return (
    <>
      <h2 className="mb-1 mt-4">Actuals on completed jobs, per {buildUp.unit || 'unit'}</h2>
      {jobs.length === 0 ? (
        <p className="note m-0">No job that was priced with it is finished yet.</p>
      ) : (
        <Table
          label="Actuals on completed jobs"
          columns={columns}
          rows={jobs}
          rowKey={(it) => it.job}
          foot={{
            label: 'The build-up now',
            cells: {
              assumedHours: displayQuantity(perUnit.hours),
              achievedHours: '',
              assumedCost: showUnitCostFull(perUnit.cost),
            },
          }}
        />
      )}
    </>
  );
}

function useAchievedColumns() {
  const kinds = useColumnKinds();
  return useMemo(
    () => [
      kinds.link<Achieved>(
        'job',
        'Job',
        (it) => it.job,
        (it) => `/jobs/${encodeURIComponent(it.job)}/budget`,
      ),
      {
        ...kinds.quantity<Achieved>('quantity', 'Quantity', (it) => it.quantity),
        cell: (it: Achieved) => `${displayQuantity(it.quantity)} ${it.unit}`,
      },
      kinds.quantity<Achieved>('assumedHours', 'Hours priced', (it) => it.assumedHours),
      kinds.quantity<Achieved>('achievedHours', 'Hours taken', (it) => it.achievedHours),
      kinds.unitCost<Achieved>('assumedCost', 'Cost priced', (it) => it.assumedCost),
      kinds.unitCost<Achieved>('achievedCost', 'Cost', (it) => it.achievedCost),
      kinds.percent<Achieved>('share', '% of estimated cost', (it) => ratio(it.achievedCost, it.assumedCost)),
    ],
    [kinds],
  );
}
