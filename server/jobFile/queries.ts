import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const POSTED_OR_APPLIED = query(
  shape({ used: t.flag }),
  `SELECT 1 AS used FROM application WHERE job_id = $1 AND status <> 'draft' UNION ALL SELECT 1 FROM cost_entry WHERE job_id = $1
    UNION ALL SELECT 1 FROM daywork_invoice WHERE job_id = $1 LIMIT 1`,
);

export const PEOPLE = query(
  shape({ side: t.oneOf<'client' | 'team'>(), name: t.text, role: t.text, email: t.text, phone: t.text }),
  'SELECT side, name, role, email, phone FROM job_person WHERE job_id = $1 ORDER BY id',
);

export const EVENTS = query(
  shape({
    kind: t.oneOf<'note' | 'call' | 'meeting' | 'visit' | 'letter'>(),
    dated: t.day,
    text: t.text,
    id: t.whole,
    actor: t.text,
    recordedAt: t.moment,
  }),
  'SELECT id, kind, dated, text, actor, recorded_at AS recordedAt FROM job_event WHERE job_id = $1 ORDER BY dated DESC, id DESC',
);

export const CHECKS = query(
  shape({ item: t.text, person: t.text, dueOn: t.orNull(t.day), doneOn: t.orNull(t.day) }),
  'SELECT item, person, due_on AS dueOn, done_on AS doneOn FROM job_check WHERE job_id = $1 ORDER BY id',
);

export const ATTACHMENTS = query(
  shape({
    id: t.whole,
    name: t.text,
    mediaType: t.text,
    size: t.whole,
    hash: t.text,
    about: t.text,
    forSite: t.flag,
    actor: t.text,
    addedAt: t.moment,
  }),
  'SELECT id, name, media_type AS mediaType, size, hash, about, for_site AS forSite, actor, added_at AS addedAt FROM attachment WHERE job_id = $1 ORDER BY id DESC',
);

export const MOVES = query(
  shape({ was: t.text, became: t.text, onDay: t.orNull(t.text), reason: t.text, actor: t.text, at: t.moment }),
  'SELECT was, became, on_day AS onDay, reason, actor, at FROM job_move WHERE job_id = $1 ORDER BY id',
);

export const CHECK_TEMPLATES = query(
  shape({ name: t.text, items: t.text }),
  'SELECT name, items FROM check_template ORDER BY name',
);

export const ATTACHED_FILE = query(
  shape({ name: t.text, mediaType: t.text, hash: t.text }),
  'SELECT name, media_type AS mediaType, hash FROM attachment WHERE id = $1',
);

/** What those who work on site see of job `$1`, of attachment `$2` or, where that is null, of all. */
export const SITE_FILES = query(
  shape({ id: t.whole, name: t.text, mediaType: t.text, hash: t.text }),
  `SELECT id, name, media_type AS mediaType, hash FROM attachment
    WHERE job_id = $1 AND for_site = 1 AND ($2 IS NULL OR id = $2) ORDER BY name, id`,
);

/** What job `$1` has of a contract, in words; no row where it has nothing. */
export const OF_A_CONTRACT = query(
  shape({ has: t.text }),
  `SELECT has FROM (SELECT 'applications for payment' AS has FROM application WHERE job_id = $1
    UNION ALL SELECT 'a schedule of values' FROM sov_line WHERE job_id = $1
    UNION ALL SELECT 'a billing schedule' FROM instalment WHERE job_id = $1) LIMIT 1`,
);

/** Daywork invoices of job `$1` before tax, credits below zero, each on its day. */
export const CHARGED_INVOICES = query(
  shape({ dated: t.day, amount: t.cents }),
  `SELECT dated, amount FROM daywork_invoice WHERE job_id = $1 AND status = 'issued'
    UNION ALL SELECT c.dated, -c.amount FROM invoice_credit c JOIN invoice i ON i.id = c.invoice_id WHERE c.job_id = $1 AND i.kind = 'daywork'`,
);
