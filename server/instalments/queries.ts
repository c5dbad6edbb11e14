import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const INSTALMENTS = query(
  shape({
    amount: t.orNull(t.cents),
    rate: t.orNull(t.rate),
    name: t.text,
    due: t.oneOf<'day' | 'start' | 'finish'>(),
    day: t.orNull(t.text),
    days: t.whole,
    from: t.oneOf<'stages' | 'job'>(),
    stages: t.text,
  }),
  `SELECT name, due, day, days, taken_from AS "from", rate, amount,
      (SELECT json_group_array(section ORDER BY id) FROM instalment_stage WHERE instalment_id = i.id) AS stages
      FROM instalment i WHERE job_id = $1 ORDER BY number`,
);

export const SCHEDULED_JOBS = query(shape({ id: t.whole }), 'SELECT DISTINCT job_id AS id FROM instalment');

export const LAST_SAVED = query(
  shape({ savedBy: t.text, savedAt: t.moment }),
  `SELECT actor AS savedBy, at AS savedAt FROM audit WHERE subject = $1 AND command = 'save-billing-schedule' ORDER BY id DESC LIMIT 1`,
);

export const RETENTION_DAY = query(
  shape({ retentionOn: t.orNull(t.day) }),
  'SELECT defects_end AS retentionOn FROM job WHERE id = $1',
);

export const ACCEPTED_ESTIMATE = query(
  shape({ number: t.whole }),
  `SELECT number FROM estimate WHERE job_id = $1 AND status = 'accepted'`,
);

export const SECTIONS = query(
  shape({ name: t.text }),
  `SELECT name FROM job_section WHERE job_id = $1 UNION SELECT section FROM sov_line WHERE job_id = $1
      UNION SELECT section FROM cost_line WHERE job_id = $1`,
);

/** Adds section `$2` to job `$1`, unless it is there. */
export const ADD_SECTION = 'INSERT INTO job_section (job_id, name) VALUES ($1, $2) ON CONFLICT (job_id, name) DO NOTHING';
