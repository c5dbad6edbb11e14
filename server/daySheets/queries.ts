import { ENTRY_KINDS } from '../../core/daySheets/daySheet';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const HEADS = (where: string) =>
  query(
    shape({
      id: t.whole,
      jobId: t.whole,
      job: t.text,
      jobName: t.text,
      dated: t.day,
      crew: t.text,
      weather: t.text,
      notes: t.text,
      leftOut: t.text,
      sheet: t.text,
      writtenBy: t.text,
      writtenAt: t.moment,
    }),
    `SELECT d.id, d.job_id AS jobId, j.number AS job, j.name AS jobName, d.dated, d.crew, d.weather, d.notes, d.left_out AS leftOut, d.sheet,
        d.written_by AS writtenBy, d.written_at AS writtenAt FROM day_sheet d JOIN job j ON j.id = d.job_id
      WHERE ${where} ORDER BY d.dated, j.number, d.crew`,
  );
/** Of job `$1`, day `$2` and crew `$3`, by number and name. */
export const DAY_SHEET = HEADS('j.number = $1 AND d.dated = $2 AND d.crew = $3');
/** Of days `$1` to `$2`, both inclusive. */
export const DAY_SHEETS_OF_DAYS = HEADS('d.dated BETWEEN $1 AND $2');
/** Whose hours went into week sheet `$1`. */
export const DAY_SHEETS_OF_SHEET = HEADS('d.sheet = $1');
/** Of job `$3` by number, in those days. */
export const DAY_SHEETS_OF_JOB = HEADS('d.dated BETWEEN $1 AND $2 AND j.number = $3');

/** Entries of the sheets whose ids are in the JSON list `$1`, as they were entered. */
export const DAY_ENTRIES = query(
  shape({
    sheetId: t.whole,
    kind: t.oneOf(...ENTRY_KINDS),
    employee: t.text,
    section: t.text,
    costCode: t.text,
    workKind: t.text,
    pay: t.orNull(t.oneOf(...PAY_CLASSES)),
    hours: t.orNull(t.hours),
    quantity: t.orNull(t.quantity),
    unit: t.text,
    headcount: t.orNull(t.whole),
    name: t.text,
    reference: t.text,
    description: t.text,
    photo: t.text,
    charged: t.flag,
    signature: t.whole,
  }),
  `SELECT x.day_sheet_id AS sheetId, x.kind, coalesce(e.code, '') AS employee, x.section, coalesce(c.code, '') AS costCode,
      coalesce(k.code, '') AS workKind, x.pay, x.hours, x.quantity, x.unit, x.headcount, x.name, x.reference, x.description, x.photo,
      x.charged, x.signature
    FROM day_entry x LEFT JOIN employee e ON e.id = x.employee_id LEFT JOIN cost_code c ON c.id = x.cost_code_id
    LEFT JOIN work_kind k ON k.id = x.work_kind_id WHERE x.day_sheet_id IN (SELECT value FROM json_each($1)) ORDER BY x.id`,
);

export const DAY_SIGNATURES = query(
  shape({ sheetId: t.whole, number: t.whole, name: t.text, office: t.text, signedOn: t.day, strokes: t.text }),
  `SELECT day_sheet_id AS sheetId, number, name, office, signed_on AS signedOn, strokes FROM day_signature
    WHERE day_sheet_id IN (SELECT value FROM json_each($1)) ORDER BY number`,
);

/** The week sheet another day of job `$1` by id and crew `$2` went into, from day `$3` to day `$4`. */
export const WEEK_SHEET_OF_CREW = query(
  shape({ sheet: t.text }),
  `SELECT sheet FROM day_sheet WHERE job_id = $1 AND crew = $2 AND dated BETWEEN $3 AND $4 AND sheet <> '' ORDER BY dated DESC LIMIT 1`,
);

/** Pictures of job `$1`, by number, that have arrived. */
export const JOB_PICTURES = query(
  shape({ hash: t.text }),
  `SELECT DISTINCT a.hash FROM attachment a JOIN job j ON j.id = a.job_id WHERE j.number = $1`,
);

/** A picture a day sheet shows, by its SHA-256 `$1`: of a job that is seen. */
export const DAY_PICTURE = query(
  shape({ name: t.text, mediaType: t.text, hash: t.text }),
  `SELECT a.name, a.media_type AS mediaType, a.hash FROM attachment a JOIN day_sheet d ON d.job_id = a.job_id
    JOIN day_entry x ON x.day_sheet_id = d.id AND x.photo = a.hash WHERE a.hash = $1 LIMIT 1`,
);

/** Jobs, and the first day somebody worked there, by a day sheet or a week sheet. */
export const JOBS_FOR_DAYS = query(
  shape({ number: t.text, name: t.text, site: t.text, status: t.text, locked: t.flag, since: t.orNull(t.day) }),
  `SELECT j.number, j.name, j.site, j.status, j.locked, (SELECT min(dated) FROM (SELECT min(d.dated) AS dated FROM day_sheet d WHERE d.job_id = j.id
        UNION ALL SELECT min(x.dated) FROM time_line x WHERE x.job_id = j.id)) AS since
    FROM job j ORDER BY j.number`,
);

/** Who was on the last day sheet with hours of each job, by number. */
export const LAST_CREWS = query(
  shape({ job: t.text, employee: t.text }),
  `SELECT DISTINCT j.number AS job, e.code AS employee FROM day_entry x JOIN day_sheet d ON d.id = x.day_sheet_id
    JOIN job j ON j.id = d.job_id JOIN employee e ON e.id = x.employee_id
    WHERE d.dated = (SELECT max(o.dated) FROM day_sheet o JOIN day_entry y ON y.day_sheet_id = o.id AND y.kind = 'hours'
      WHERE o.job_id = d.job_id) ORDER BY j.number, e.name`,
);

export const DELETE_DAY_ENTRIES = 'DELETE FROM day_entry WHERE day_sheet_id = $1';
