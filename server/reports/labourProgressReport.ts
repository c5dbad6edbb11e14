import { LABOUR_FIGURES } from '../../core/forecast/labourFigures';
import { labourTotal, type LabourProgress } from '../../core/forecast/labourProgress';
import type { Reader } from '../db/sql';
import { labourTasks } from '../labour/labourTasks';
import { jobOf } from './jobOf';
import { columns, type Report, type ReportColumn, type ReportRequest } from '../reportFiles/report';

const FIGURES = Object.values(LABOUR_FIGURES);
const COLUMNS: ReportColumn[] = [
  ...columns('section:t:Section', 'cost_code:t:Cost code'),
  ...FIGURES.map(({ column, head, unit }): ReportColumn => ({ key: column, title: head, kind: unit })),
];

/** Hours by task of one job: the labour rows of estimate versus actual; the total is summed before it is rounded. */
export async function labourProgressReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const job = await jobOf(sql, 'labour-progress', request);
  const tasks = await labourTasks(sql, job, request.asOf);
  const row = (section: string, costCode: string, progress: LabourProgress) => ({
    section,
    cost_code: costCode,
    ...Object.fromEntries(FIGURES.map(({ column, key }) => [column, progress[key]])),
  });
  return {
    name: 'labour-progress',
    title: `Hours by task, job ${job.number} ${job.name}`,
    columns: COLUMNS,
    rows: [
      ...tasks.map((it) => row(it.section, it.costCode, it.progress)),
      row('TOTAL', '', labourTotal(tasks.map((it) => ({ line: it.state, finished: it.finished })))),
    ],
    hasTotal: true,
  };
}
