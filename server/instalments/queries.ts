import { query } from '../db/query';
import { shape, t } from '../db/fields';

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
