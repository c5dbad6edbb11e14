import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { COST_TYPES } from '../../core/costs/costType';

export const COST_LINE_KEYS = query(
  shape({ id: t.whole, key: t.text }),
  `SELECT l.id, l.section || char(31) || c.code || char(31) || l.cost_type AS key FROM cost_line l JOIN cost_code c ON c.id = l.cost_code_id WHERE l.job_id = $1`,
);

export const STAGES_WITHOUT_SECTION = query(
  shape({ section: t.text, instalment: t.text }),
  `SELECT s.section, min(i.name) AS instalment FROM instalment_stage s JOIN instalment i ON i.id = s.instalment_id
      JOIN job_section n ON n.job_id = i.job_id AND n.name = s.section WHERE i.job_id = $1 GROUP BY s.section`,
);

export const PLANNED_LINES = query(
  shape({
    id: t.whole,
    section: t.text,
    costCode: t.text,
    costType: t.oneOf(...COST_TYPES),
    startsOn: t.day,
    finishesOn: t.day,
  }),
  `SELECT l.id, l.section, c.code AS costCode, l.cost_type AS costType, p.starts_on AS startsOn, p.finishes_on AS finishesOn
      FROM cost_line_plan p JOIN cost_line l ON l.id = p.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id WHERE l.job_id = $1 ORDER BY l.id`,
);

export const JOB_DATES = query(
  shape({ startsOn: t.orNull(t.day), finishesOn: t.orNull(t.day), startedOn: t.orNull(t.day), finishedOn: t.orNull(t.day) }),
  `SELECT starts_on AS startsOn, finishes_on AS finishesOn, finished_on AS finishedOn,
      CASE WHEN status IN ('tender', 'awarded') THEN NULL ELSE starts_on END AS startedOn FROM job WHERE id = $1`,
);

export const SECTION_DATES = query(
  shape({
    startsOn: t.orNull(t.day),
    finishesOn: t.orNull(t.day),
    startedOn: t.orNull(t.day),
    finishedOn: t.orNull(t.day),
    name: t.text,
  }),
  `SELECT name, starts_on AS startsOn, finishes_on AS finishesOn, started_on AS startedOn, finished_on AS finishedOn
      FROM job_section WHERE job_id = $1 ORDER BY id`,
);
