import { EVENT_KINDS } from '../../wire/jobFile';
import { isHash } from '../attachments/contents';
import { bookFile } from '../bookFormat/bookFile';
import { date, moment, oneOf, REQUIRED, text, yesNo } from '../bookFormat/columns';
import { known } from '../../core/errors/known';
import { assertBookOfTeam, jobs } from '../jobs/bookFiles';
import { AttachmentTable, CheckTemplateTable, JobCheckTable, JobEventTable, JobPersonTable } from './models';

export const checklistTemplates = bookFile({
  name: 'checklist_templates',
  columns: { template: text(REQUIRED), item: text(REQUIRED, 'one row an item') },
  key: [],
  keyNote: 'template, several rows',
  head: {
    by: ['template'],
    called: 'checklist template',
    same: [],
    joins: false,
    existing: 'SELECT id, name AS template FROM check_template',
  },
  query: 'SELECT t.id * 1000000 + i.key AS id, t.name AS template, i.value AS item FROM check_template t, json_each(t.items) i',
  async save(rows, into) {
    const lists = new Map<string, string[]>();
    for (const { template, item } of rows) lists.set(template, [...(lists.get(template) ?? []), item]);
    await into.insertAll(
      CheckTemplateTable,
      [...lists].map(([name, items]) => ({ name, items: JSON.stringify(items) })),
    );
  },
});

const OF_JOB = { takenBy: 'always', key: [], refers: { job: { to: jobs } } } as const;

export const jobPeople = bookFile({
  ...OF_JOB,
  name: 'job_people',
  columns: {
    job: text(REQUIRED),
    side: oneOf(['client', 'team'])(REQUIRED),
    name: text(REQUIRED),
    role: text(),
    email: text(),
    phone: text(),
  },
  query: 'SELECT p.id, j.number AS job, p.side, p.name, p.role, p.email, p.phone FROM job_person p JOIN job j ON j.id = p.job_id',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobPersonTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        side: row.side,
        name: row.name,
        role: row.role ?? '',
        email: row.email ?? '',
        phone: row.phone ?? '',
      })),
    ),
});

export const jobEvents = bookFile({
  ...OF_JOB,
  name: 'job_events',
  columns: {
    job: text(REQUIRED),
    kind: oneOf(EVENT_KINDS)(REQUIRED),
    dated: date(REQUIRED),
    text: text(REQUIRED),
    noted_by: text('empty: whoever imports'),
    noted_at: moment('empty: now'),
  },
  query:
    'SELECT e.id, j.number AS job, e.kind, e.dated, e.text, e.actor AS noted_by, e.recorded_at AS noted_at FROM job_event e JOIN job j ON j.id = e.job_id',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobEventTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        kind: row.kind,
        dated: row.dated,
        text: row.text,
        actor: row.noted_by ?? into.actor.name,
        recorded_at: row.noted_at ?? into.actor.at,
      })),
    ),
});

export const jobPapers = bookFile({
  ...OF_JOB,
  name: 'job_papers',
  columns: {
    job: text(REQUIRED),
    name: text(REQUIRED),
    media_type: text(REQUIRED),
    sha256: text(REQUIRED),
    about: text(),
    added_by: text(REQUIRED),
    added_at: moment(REQUIRED),
    for_site: yesNo('those who work on site see it'),
  },
  query:
    'SELECT f.id, j.number AS job, f.name, f.media_type, f.hash AS sha256, f.about, f.actor AS added_by, f.added_at, f.for_site FROM attachment f JOIN job j ON j.id = f.job_id',
  check(row, book) {
    if (row.sha256 && !isHash(row.sha256)) book.fault(jobPapers, row, 'sha256', 'is not a SHA-256 in 64 hexadecimal digits');
  },
  async save(rows, into): Promise<void> {
    await assertBookOfTeam(into, new Set(rows.map((row) => into.id(jobs, row.job))));
    await into.insertAll(
      AttachmentTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        name: row.name,
        media_type: row.media_type,
        hash: row.sha256,
        size: known(into.contents.sizes, row.sha256),
        about: row.about ?? '',
        actor: row.added_by,
        added_at: row.added_at,
        for_site: row.for_site ? 1 : 0,
      })),
    );
  },
});

export const jobChecklist = bookFile({
  ...OF_JOB,
  name: 'job_checklist',
  columns: { job: text(REQUIRED), item: text(REQUIRED), person: text(), due_on: date(), done_on: date() },
  query: 'SELECT c.id, j.number AS job, c.item, c.person, c.due_on, c.done_on FROM job_check c JOIN job j ON j.id = c.job_id',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      JobCheckTable,
      rows.map((row) => ({
        job_id: into.id(jobs, row.job),
        item: row.item,
        person: row.person ?? '',
        due_on: row.due_on,
        done_on: row.done_on,
      })),
    ),
});
