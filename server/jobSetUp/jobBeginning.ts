import { LedrinError } from '../../core/errors/ledrinError';
import { known } from '../../core/errors/known';
import type { JobBeginning } from '../../wire/jobs';
import { CompanyTable, JobKindTable } from '../company/models';
import type { Reader } from '../db/sql';
import { CheckTemplateTable } from '../jobFile/models';
import { listFactsOf } from '../jobs/listFacts';
import { JobTable } from '../jobs/models';
import { retentionTermsOf } from '../jobs/retentionTerms';
import { WorkKindTable } from '../labour/models';
import { LAST_JOB_OF_CLIENT } from './queries';

/** Of a client we have not worked for: nothing is known but what is usual here. */
const USUAL_RETENTION = 50_000;

/** What a new job of a client begins with: as the client's last job has it, but for what its kind says. */
export async function jobBeginning(sql: Reader, { client, kind }: { client: string; kind: string }): Promise<JobBeginning> {
  const beginning = await likeLastJob(sql, client);
  if (kind === '') return beginning;
  const row = await sql.findOne(JobKindTable, { code: kind, closed: 0 });
  if (!row) throw new LedrinError('not-found', `There is no kind of job ${kind} open to new use`);
  const { retention } = beginning;
  const work = row.work_kind_id === null ? undefined : await sql.findOne(WorkKindTable, { id: row.work_kind_id });
  return {
    ...beginning,
    kind: row.name,
    // A kind that says what is retained says all of it: the step and the cap of another job are not its own.
    retention: row.retention_rate === null ? retention : { ...NOTHING_MORE, rate: row.retention_rate },
    revenueMethod: row.revenue_method || beginning.revenueMethod,
    termsDays: row.terms_days ?? beginning.termsDays,
    workKind: work?.code ?? beginning.workKind,
    payCode: row.pay_code,
    checklist: await checklistOf(sql, row.checklist),
  };
}

const NOTHING_MORE = { materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null } as const;

async function likeLastJob(sql: Reader, client: string): Promise<JobBeginning> {
  const company = await sql.findOne(CompanyTable, {});
  const last = client === '' ? undefined : await sql.get(LAST_JOB_OF_CLIENT, [client]);
  if (!last)
    return {
      retention: { ...NOTHING_MORE, rate: USUAL_RETENTION },
      taxRate: company?.tax_rate ?? 0,
      termsDays: null,
      revenueMethod: 'cost-to-cost',
      checklist: [],
      department: '',
      workKind: '',
      payCode: '',
      last: null,
      kind: null,
    };
  const row = known(new Map((await sql.find(JobTable, { id: last.id })).map((it) => [it.id, it])), last.id);
  const { department, workKind } = await listFactsOf(sql, row);
  return {
    retention: retentionTermsOf(row),
    taxRate: row.tax_rate,
    termsDays: row.terms_days,
    revenueMethod: row.revenue_method,
    checklist: [],
    department,
    workKind,
    payCode: '',
    last: { number: row.number, name: row.name },
    kind: null,
  };
}

/** The items of a checklist saved under a name; none where it is gone. */
async function checklistOf(sql: Reader, name: string): Promise<JobBeginning['checklist']> {
  const saved = name === '' ? undefined : await sql.findOne(CheckTemplateTable, { name });
  return ((saved ? JSON.parse(saved.items) : []) as string[]).map((item) => ({ item, person: '', dueOn: null, doneOn: null }));
}
