import { takes } from '../../../../core/jobs/takes';
import { useMemo, useState } from 'react';
import { COST_TYPES, type CostType } from '../../../../core/costs/costType';
import type { CostRow } from '../../../../wire/costs';
import { useEstimateVersusActualQuery, useListsQuery } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';

/** Later than all: a line that comes by a change order of any day can be moved to. */
const EVER = '2199-12';

/** Stands for what is left as it is: no code or section is named so. */
const SAME = '\u0000';
const same = (title: string) => [SAME, title] as const;

/** Where picked entries are moved to: what is chosen, and what can be. */
export function useMoveTarget(rows: readonly CostRow[]) {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const [chosen, setChosen] = useState({ job: SAME, section: SAME, costCode: SAME, costType: SAME });
  const oneJob = new Set(rows.map((it) => it.job)).size === 1 ? (rows[0]?.job ?? null) : null;
  const job = chosen.job === SAME ? oneJob : chosen.job;
  const { data: spent } = useEstimateVersusActualQuery({ job: job ?? '', asOf: EVER }, { skip: job === null });
  const options = useMemo(() => {
    const sections = lists?.jobs.find((it) => it.number === job)?.sections ?? [];
    const other = chosen.job !== SAME && chosen.job !== oneJob;
    return {
      job: [
        same('Unchanged'),
        ...(lists?.jobs ?? []).filter((it) => takes(it, 'cost')).map((it) => [it.number, `${it.number} ${it.name}`] as const),
      ],
      section: [
        same(other ? 'None' : 'Unchanged'),
        ...(other ? [] : [['', 'None'] as const]),
        ...sections.map((it) => [it, it] as const),
      ],
      costCode: [same('Unchanged'), ...(lists?.costCodes ?? []).map((it) => [it.code, `${it.code} ${it.description}`] as const)],
      costType: [same('Unchanged'), ...COST_TYPES.map((it) => [it, it] as const)],
    };
  }, [lists, job, oneJob, chosen.job]);
  const budget = useMemo(() => {
    const sov = new Map((spent?.revenue ?? []).map((it) => [it.line, it.description]));
    const lines = (spent?.lines ?? []).filter((it) => it.budgeted);
    return lines
      .flatMap(({ section, costCode, costType, serves }) =>
        (serves.length === 0 ? [''] : serves).map((line) => ({
          section,
          costCode,
          costType,
          title: [
            ...(line ? [`SOV ${line} ${sov.get(line) ?? ''}`.trim()] : []),
            [section, costCode, costType].filter(Boolean).join(' · '),
          ].join(': '),
        })),
      )
      .sort((a, b) => (a.title < b.title ? -1 : 1));
  }, [spent]);
  const valueOf = (name: keyof typeof chosen) => (chosen[name] === SAME ? null : chosen[name]);
  return {
    chosen,
    options,
    budget,
    set: (change: Partial<typeof chosen>) => setChosen((before) => ({ ...before, ...change })),
    /** Null while nothing is chosen. */
    to: Object.values(chosen).every((it) => it === SAME)
      ? null
      : {
          job: valueOf('job'),
          section: valueOf('section'),
          costCode: valueOf('costCode'),
          costType: valueOf('costType') as CostType | null,
        },
  };
}
